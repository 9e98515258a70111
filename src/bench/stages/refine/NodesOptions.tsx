'use client';

import { Chip } from '@/ui/Chip';
import { LengthField } from '@/ui/LengthField';
import { useBenchState, usePreference } from '../../benchContext';
import { prefer } from '../../state/preferences';

/** The node tool: whether neighbours are carried along, and what it shows. */
export function NodesOptions() {
  const sway = usePreference('sway');
  const reach = usePreference('swayReach');
  const handles = usePreference('showHandles');
  const nodes = usePreference('showNodes');
  const skeleton = usePreference('showSkeleton');
  const unit = useBenchState((s) => s.drawing.page.unit);
  return (
    <>
      <Chip
        on={sway}
        title="A node that is dragged carries its neighbours along, the further away the less (Shift Z)"
        onToggle={(on) => prefer({ sway: on })}
      >
        sway
      </Chip>
      {sway && (
        <>
          <span className="option-label">over</span>
          <LengthField
            label="How far along the line a node carries others"
            value={reach}
            unit={unit}
            min={1}
            max={20_000}
            onCommit={(v) => prefer({ swayReach: v })}
          />
        </>
      )}
      <span className="option-label">Show</span>
      <span className="choice" role="group" aria-label="What is shown of chosen lines">
        <Chip on={nodes} onToggle={(on) => prefer({ showNodes: on })}>
          nodes
        </Chip>
        <Chip on={handles} onToggle={(on) => prefer({ showHandles: on })}>
          handles
        </Chip>
        <Chip on={skeleton} onToggle={(on) => prefer({ showSkeleton: on })}>
          skeleton
        </Chip>
      </span>
    </>
  );
}
