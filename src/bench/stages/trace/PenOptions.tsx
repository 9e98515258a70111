'use client';

import { Chip } from '@/ui/Chip';
import { useBenchState, usePreference } from '../../benchContext';
import { prefer } from '../../state/preferences';
import { followed } from '../../tools/penFollow';
import { TargetChoice } from '../shared/TargetChoice';
import { MirrorOption } from './MirrorOption';
import { NextStyle } from './NextStyle';

/** The pen: what the next line looks like, and how it is laid. */
export function PenOptions() {
  const straightFirst = usePreference('straightFirst');
  const figures = usePreference('figures');
  const follow = usePreference('follow');
  const picture = useBenchState(followed);
  const hasPicture = picture !== undefined;
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
      {follow && picture && <TargetChoice reference={picture} label="What is followed" />}
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
