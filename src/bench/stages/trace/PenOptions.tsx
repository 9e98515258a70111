'use client';

import { Chip, Choice } from '@/ui/Chip';
import { useBenchState, usePreference } from '../../benchContext';
import { prefer } from '../../state/preferences';
import { MirrorOption } from './MirrorOption';
import { NextStyle } from './NextStyle';

/** The pen: what the next line looks like, and how it is laid. */
export function PenOptions() {
  const straightFirst = usePreference('straightFirst');
  const figures = usePreference('figures');
  const follow = usePreference('follow');
  const target = usePreference('followTarget');
  const hasPicture = useBenchState((s) => s.drawing.references.some((r) => r.visible && !r.beside));
  return (
    <>
      <NextStyle />
      <Chip
        on={straightFirst}
        title="Straight segments only; bend them afterwards"
        onToggle={(on) => prefer({ straightFirst: on })}
      >
        straight first
      </Chip>
      <SnapChip />
      <MirrorOption />
      <Chip on={figures} title="Length, angle and nodes beside the pointer" onToggle={(on) => prefer({ figures: on })}>
        figures
      </Chip>
      <Chip
        on={follow}
        disabled={!hasPicture}
        title={
          hasPicture ? 'The pen shows the curve along the ink to where it points' : 'There is no picture to follow'
        }
        onToggle={(on) => prefer({ follow: on })}
      >
        follow
      </Chip>
      {follow && (
        <Choice
          label="What is followed"
          value={target}
          options={[
            { value: 'ink', label: 'ink', title: 'The strokes of a sketch' },
            { value: 'edge', label: 'edges', title: 'Where the tone changes in a photo' },
          ]}
          onChange={(v) => prefer({ followTarget: v })}
        />
      )}
    </>
  );
}

/** Whether new nodes are drawn to other lines. */
export function SnapChip() {
  const snapLines = usePreference('snapLines');
  return (
    <Chip
      on={snapLines}
      title="Ends and nodes are drawn to other lines (Ctrl held: not)"
      onToggle={(on) => prefer({ snapLines: on })}
    >
      keep to lines
    </Chip>
  );
}
