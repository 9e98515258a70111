import { seeded } from '@/core/seeded';
import type { Shot } from './snailPhoto';

/** A shot of the sketchbook page as a hand would take it the n-th time: another angle, another light, the same for the same n. */
export function shotOf(n: number, size: { width: number; height: number }): Shot {
  const random = seeded(7001 + 31 * n);
  const between = (a: number, b: number): number => a + (b - a) * random();
  const [w, h] = [size.width, size.height];
  const turn = between(-0.11, 0.11);
  const scale = between(0.7, 0.84);
  const lean = { x: between(-0.1, 0.1), y: between(-0.1, 0.1) };
  const middle = { x: w * (0.5 + between(-0.03, 0.03)), y: h * (0.5 + between(-0.03, 0.03)) };
  // The page is 7 wide and 5 high; leaning makes its far side shorter.
  const half = { x: (w * scale) / 2, y: (w * scale * 5) / 14 };
  const corners = [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([sx, sy]) => {
    const near = 1 / (1 + lean.x * sx + lean.y * sy);
    const [x, y] = [sx * half.x * near, sy * half.y * near];
    return {
      x: middle.x + x * Math.cos(turn) - y * Math.sin(turn),
      y: middle.y + x * Math.sin(turn) + y * Math.cos(turn),
    };
  });
  return {
    size,
    corners,
    light: { from: between(0, 360), fall: between(0.05, 0.4) },
    dark: between(0, 0.5),
    table: between(0.6, 1.15),
    seed: 100 + n,
  };
}
