import type { Cubic, Point } from '..';

/** Every node moved by `by` px any way, its handles with it. */
export function disturbed(cubics: readonly Cubic[], closed: boolean, by: number, random: () => number): Cubic[] {
  const offsets = Array.from({ length: cubics.length + 1 }, (): Point => {
    const a = 2 * Math.PI * random();
    return { x: by * Math.cos(a), y: by * Math.sin(a) };
  });
  if (closed) offsets[cubics.length] = offsets[0];
  const moved = (p: Point, o: Point): Point => ({ x: p.x + o.x, y: p.y + o.y });
  return cubics.map((c, i) => [
    moved(c[0], offsets[i]),
    moved(c[1], offsets[i]),
    moved(c[2], offsets[i + 1]),
    moved(c[3], offsets[i + 1]),
  ]);
}
