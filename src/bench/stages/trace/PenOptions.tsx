'use client';

import { Chip } from '@/ui/Chip';
import { usePreference } from '../../benchContext';
import { prefer } from '../../state/preferences';
import { NextStyle } from './NextStyle';

/** The pen: what the next line looks like, and how it is laid. */
export function PenOptions() {
  const straightFirst = usePreference('straightFirst');
  const figures = usePreference('figures');
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
      <Chip on={figures} title="Length, angle and nodes beside the pointer" onToggle={(on) => prefer({ figures: on })}>
        figures
      </Chip>
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
