import svgpath from 'svgpath';
import type { Run } from '../drawing/schema';
import { runFromCubics } from '../drawing/fromCubics';
import type { Cubic } from '../geometry/cubic';
import type { Matrix } from '../geometry/matrix';
import { distance, mix, type Point } from '../geometry/point';
import { lengthOf } from './svgStyle';

type Attributes = Record<string, string>;

/** An element's outline as path data (SVG 2, chapters 9 and 10); null for one that draws none. */
export function outlineOf(name: string, a: Attributes): string | null {
  const n = (key: string): number => lengthOf(a[key]) ?? 0;
  switch (name) {
    case 'path':
      return a.d ?? null;
    case 'line':
      return `M${n('x1')} ${n('y1')}L${n('x2')} ${n('y2')}`;
    case 'polyline':
    case 'polygon': {
      const places = (a.points ?? '').trim();
      return places === '' ? null : `M${places}${name === 'polygon' ? 'Z' : ''}`;
    }
    case 'circle':
      return ellipse(n('cx'), n('cy'), n('r'), n('r'));
    case 'ellipse':
      return ellipse(n('cx'), n('cy'), lengthOf(a.rx) ?? n('ry'), lengthOf(a.ry) ?? n('rx'));
    case 'rect':
      return rectangle(a);
    default:
      return null;
  }
}

const ellipse = (x: number, y: number, rx: number, ry: number): string | null =>
  rx > 0 && ry > 0 ? `M${x + rx} ${y}A${rx} ${ry} 0 0 1 ${x - rx} ${y}A${rx} ${ry} 0 0 1 ${x + rx} ${y}Z` : null;

function rectangle(a: Attributes): string | null {
  const n = (key: string): number => lengthOf(a[key]) ?? 0;
  const [x, y, w, h] = [n('x'), n('y'), n('width'), n('height')];
  if (!(w > 0 && h > 0)) return null;
  const rx = Math.min(w / 2, lengthOf(a.rx) ?? n('ry'));
  const ry = Math.min(h / 2, lengthOf(a.ry) ?? n('rx'));
  if (!(rx > 0 && ry > 0)) return `M${x} ${y}H${x + w}V${y + h}H${x}Z`;
  const arc = (px: number, py: number): string => `A${rx} ${ry} 0 0 1 ${px} ${py}`;
  return `M${x + rx} ${y}H${x + w - rx}${arc(x + w, y + ry)}V${y + h - ry}${arc(x + w - rx, y + h)}H${x + rx}${arc(x, y + h - ry)}V${y + ry}${arc(x + rx, y)}Z`;
}

/** Ends of a closed figure nearer than this, in page units, are one place. */
const SAME = 1e-6;

/**
 * Path data under a transform as runs of nodes: arcs and quadratic curves become cubics. Straight segments have no
 * handles. Null for data that cannot be read; a figure without length is a run of one node.
 */
export function runsOf(data: string, { a, b, c, d, e, f }: Matrix): Run[] | null {
  const path = svgpath(data).matrix([a, b, c, d, e, f]).unshort().unarc().abs();
  if ((path as unknown as { err: string }).err) return null;
  const runs: Run[] = [];
  let cubics: Cubic[] = [];
  let [at, start]: Point[] = [
    { x: 0, y: 0 },
    { x: 0, y: 0 },
  ];
  let fails = false;
  const end = (closed: boolean): void => {
    const run = runOfFigure(cubics, closed, at);
    if (run) runs.push(run);
    cubics = [];
  };
  const to = (p: Point, b: Point, c: Point): void => {
    cubics.push([at, b, c, p]);
    at = p;
  };
  path.iterate(([command, ...rest]) => {
    const v = rest as number[];
    if (v.some((x) => !Number.isFinite(x))) fails = true;
    const p = (i: number): Point => ({ x: v[i], y: v[i + 1] });
    if (command === 'M') {
      if (cubics.length > 0) end(false);
      at = start = p(0);
    } else if (command === 'L' || command === 'H' || command === 'V') {
      const q = command === 'L' ? p(0) : command === 'H' ? { x: v[0], y: at.y } : { x: at.x, y: v[0] };
      to(q, at, q);
    } else if (command === 'C') to(p(4), p(0), p(2));
    else if (command === 'Q') {
      // Degree raised: the same curve.
      to(p(2), mix(at, p(0), 2 / 3), mix(p(2), p(0), 2 / 3));
    } else if (command === 'Z' || command === 'z') {
      if (distance(at, start) > SAME) to(start, at, start);
      end(true);
      at = start;
    }
  });
  if (cubics.length > 0) end(false);
  return fails ? null : runs;
}

function runOfFigure(cubics: Cubic[], closed: boolean, at: Point): Run | null {
  const list = cubics.filter((c) => c.some((p) => distance(p, c[0]) > SAME));
  if (list.length === 0)
    return cubics.length > 0 ? { closed: false, nodes: [{ point: at, in: null, out: null, kind: 'corner' }] } : null;
  return runFromCubics(list, closed && (list.length > 1 || distance(list[0][0], list[0][3]) <= SAME));
}
