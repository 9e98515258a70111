import type { Cubic } from './cubic';
import { add, cross, distance, dot, scale, subtract, type Point } from './point';

/** Nearer than this to an end a bend would need endless handles. */
const LEAST_T = 0.06;

/**
 * The cubic bent so that it runs through `to` where it ran through its point at `t`: both handles move as little as that
 * needs (the least-norm solution), each in the measure in which it acts there. Ends stay.
 */
export function bent(c: Cubic, t: number, to: Point): Cubic {
  const k = Math.min(1 - LEAST_T, Math.max(LEAST_T, t));
  const u = 1 - k;
  const [b1, b2] = [3 * u * u * k, 3 * u * k * k];
  const [b0, b3] = [u * u * u, k * k * k];
  const at = {
    x: b0 * c[0].x + b1 * c[1].x + b2 * c[2].x + b3 * c[3].x,
    y: b0 * c[0].y + b1 * c[1].y + b2 * c[2].y + b3 * c[3].y,
  };
  const direction = scale(subtract(to, at), 1 / (b1 * b1 + b2 * b2));
  return [c[0], add(c[1], scale(direction, b1)), add(c[2], scale(direction, b2)), c[3]];
}

/** A cubic between the ends of `c` that is its own mirror image about the middle of its chord, and runs through `to`. */
export function bentEvenly(c: Cubic, to: Point): Cubic {
  const chord = subtract(c[3], c[0]);
  const length = distance(c[0], c[3]);
  if (length < 1e-9) return bent(c, 0.5, to);
  const [along, across] = [scale(chord, 1 / length), { x: -chord.y / length, y: chord.x / length }];
  const offset = subtract(to, c[0]);
  const t = Math.min(1 - LEAST_T, Math.max(LEAST_T, dot(offset, along) / length));
  const height = cross(along, offset) / (3 * t * (1 - t));
  const third = scale(along, length / 3);
  const up = scale(across, height);
  return [c[0], add(add(c[0], third), up), add(subtract(c[3], third), up), c[3]];
}
