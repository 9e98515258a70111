import { shownCubics } from '../drawing/rounding';
import type { Cubic } from '../geometry/cubic';
import { mix, samePoint, type Point } from '../geometry/point';
import type { Line, Run } from '../drawing/schema';

/** A number with at most `precision` decimals, without needless zeros. */
export function decimal(value: number, precision: number): string {
  const text = value.toFixed(precision);
  const short = text.includes('.') ? text.replace(/\.?0+$/, '') : text;
  return short === '-0' ? '0' : short;
}

/** SVG path data of a line (SVG 2, chapter 9): absolute M, L, C and Z. A lone node is a point: `M x y h0`. */
export const pathData = (line: Pick<Line, 'runs'>, precision = 3): string =>
  line.runs.map((run) => runData(run, precision)).join('');

function runData(run: Run, precision: number): string {
  const xy = (p: Point) => `${decimal(p.x, precision)} ${decimal(p.y, precision)}`;
  const { nodes, closed } = run;
  if (nodes.length === 1 && !closed) return `M${xy(nodes[0].point)}h0`;
  return cubicsData(shownCubics(run), closed, precision);
}

function cubicsData(list: readonly Cubic[], closed: boolean, precision: number): string {
  const xy = (p: Point) => `${decimal(p.x, precision)} ${decimal(p.y, precision)}`;
  let data = `M${xy(list[0][0])}`;
  list.forEach(([a, b, c, d], i) => {
    const isStraight = (samePoint(a, b) && samePoint(c, d)) || isThirds(a, b, c, d);
    if (isStraight && closed && i === list.length - 1) return;
    data += isStraight ? `L${xy(d)}` : `C${xy(b)} ${xy(c)} ${xy(d)}`;
  });
  return closed ? `${data}Z` : data;
}

/** Path data of closed outlines. */
export const outlineData = (outlines: readonly (readonly Cubic[])[], precision = 3): string =>
  outlines.map((cubics) => cubicsData(cubics, true, precision)).join('');

/** Whether a cubic is a straight one with its handles at the thirds. */
const isThirds = (a: Point, b: Point, c: Point, d: Point): boolean =>
  samePoint(b, mix(a, d, 1 / 3)) && samePoint(c, mix(a, d, 2 / 3));
