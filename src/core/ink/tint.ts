import { colord, extend } from 'colord';
import lch from 'colord/plugins/lch';
import { skeletonBox } from '../drawing/run';
import type { Drawing, Line } from '../drawing/schema';
import { arcLengthOf } from '../geometry/arcLength';
import { shownCubics } from '../drawing/rounding';
import { evaluate } from '../geometry/cubic';
import type { Point } from '../geometry/point';
import { isWithin } from '../geometry/polygon';
import { sectionAt } from './sections';

extend([lch]);

/** How dark a tinted line is beside its fill: 0 as light, 1 black. */
export const firstTint = 0.55;

/** A darker colour of the same hue (CIE LCh): lightness down by a share, and less of its chroma the darker it is. */
export function darker(colour: string, by: number): string {
  const { l, c, h } = colord(colour).toLch();
  return colord({ l: l * (1 - by), c: c * (1 - by * by), h, a: 1 })
    .toHex()
    .slice(0, 7);
}

/** How far beside a line its neighbours' fills are looked for, page units beyond its edge. */
const BESIDE = 2;

/** The fill that a line encloses or borders: its own; else of the uppermost filled line beneath one of its sides. */
export function fillBeside(d: Drawing, line: Line): string | null {
  if (line.style.fill) return line.style.fill;
  const filled = d.sheets
    .filter((s) => s.visible)
    .flatMap((s) => s.lines)
    .filter((l) => l.style.fill && l.id !== line.id)
    .reverse();
  for (const at of [0.5, 0.25, 0.75]) {
    const { p, along, left, right } = sectionAt(line, at);
    const sides = [left + BESIDE, -(right + BESIDE)].map((k) => ({ x: p.x + along.y * k, y: p.y - along.x * k }));
    for (const place of sides) {
      const found = filled.find((l) => isInside(l, place));
      if (found) return found.style.fill;
    }
  }
  return null;
}

function isInside(line: Line, p: Point): boolean {
  const box = skeletonBox(line);
  if (p.x < box.minX || p.x > box.maxX || p.y < box.minY || p.y > box.maxY) return false;
  return line.runs.filter((run) => isWithin(p, polygonOf(run))).length % 2 === 1;
}

const polygons = new WeakMap<Line['runs'][number], Point[]>();

function polygonOf(run: Line['runs'][number]): Point[] {
  let known = polygons.get(run);
  if (!known) {
    const cubics = run.nodes.length > 1 ? shownCubics(run) : [];
    const each = Math.max(4, Math.min(24, Math.ceil(arcLengthOf(cubics).length / Math.max(1, cubics.length) / 6)));
    known = cubics.flatMap((c) => Array.from({ length: each }, (_, i) => evaluate(c, i / each)));
    polygons.set(run, known);
  }
  return known;
}
