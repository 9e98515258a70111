import type { Cubic, Point } from '@/core';

/** Reads the few path commands that the demo's curves are written in: absolute M, C, S and L. Source: SVG 2, chapter 9. */
export function cubicsFrom(path: string): Cubic[] {
  const list: Cubic[] = [];
  let at: Point = { x: 0, y: 0 };
  let lastControl: Point | null = null;
  for (const [, command, rest] of path.matchAll(/([MCSL])([^MCSL]*)/g)) {
    const n = rest
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    const p = (i: number): Point => ({ x: n[i], y: n[i + 1] });
    if (command === 'M') {
      at = p(0);
      lastControl = null;
      continue;
    }
    const size = command === 'C' ? 6 : command === 'S' ? 4 : 2;
    for (let i = 0; i < n.length; i += size) {
      const mirrored: Point = lastControl ? { x: 2 * at.x - lastControl.x, y: 2 * at.y - lastControl.y } : at;
      const next: Cubic =
        command === 'C'
          ? [at, p(i), p(i + 2), p(i + 4)]
          : command === 'S'
            ? [at, mirrored, p(i), p(i + 2)]
            : [at, at, p(i), p(i)];
      list.push(next);
      at = next[3];
      lastControl = command === 'L' ? null : next[2];
    }
  }
  return list;
}

/** One true line: its curve in units of its own page, how wide it was drawn, and the part it belongs to. */
export type TrueLine = { part: string; cubics: Cubic[]; closed: boolean; width: number };

export const trueLine = (part: string, path: string, width: number, closed = false): TrueLine => ({
  part,
  cubics: cubicsFrom(path),
  closed,
  width,
});
