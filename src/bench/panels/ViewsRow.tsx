'use client';

import { Chip } from '@/ui/Chip';
import { useBenchState, usePreference } from '../benchContext';
import { prefer } from '../state/preferences';

/** What is seen of how lines lie, bend and join. */
export function ViewsRow() {
  const distance = usePreference('distance');
  const coverage = usePreference('coverage');
  const comb = usePreference('comb');
  const flow = usePreference('flow');
  const stage = useBenchState((s) => s.stage);
  if (stage !== 'refine') return null;
  return (
    <div className="views" role="group" aria-label="Views">
      <Chip
        on={distance}
        title="Lines coloured by how far they lie from the ink (Shift 1)"
        onToggle={(on) => prefer({ distance: on })}
      >
        distance
      </Chip>
      <Chip
        on={coverage}
        title="A wash over ink that has no line yet (Shift 2)"
        onToggle={(on) => prefer({ coverage: on })}
      >
        untraced
      </Chip>
      <Chip on={comb} title="Chosen lines: how much they bend (Shift 3)" onToggle={(on) => prefer({ comb: on })}>
        curvature
      </Chip>
      <Chip
        on={flow}
        title="Chosen lines: how they go through their nodes (Shift 4)"
        onToggle={(on) => prefer({ flow: on })}
      >
        flow
      </Chip>
    </div>
  );
}
