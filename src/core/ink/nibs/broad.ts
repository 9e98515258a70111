import { scalingAbout, times, turningAbout } from '../../geometry/matrix';
import type { NibDefinition } from './nib';

const MIDDLE = { x: 0, y: 0 };

/** A flat pen held at an angle: the sweep of an ellipse, wide across its edge and thin along it. */
export const broad: NibDefinition<'broad'> = {
  kind: 'broad',
  label: 'broad',
  about: 'A flat pen held at an angle: wide across its edge, thin along it.',
  plain: { kind: 'broad', angle: -40, flatness: 0.22 },
  shape: ({ angle, flatness }) =>
    times(turningAbout(MIDDLE, angle), times(scalingAbout(MIDDLE, 1, flatness), turningAbout(MIDDLE, -angle))),
};
