import { cubicsOf, segmentCount } from '../drawing/run';
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
  const xy = (p: { x: number; y: number }) => `${decimal(p.x, precision)} ${decimal(p.y, precision)}`;
  const n = run.nodes.length;
  let data = `M${xy(run.nodes[0].point)}`;
  if (n === 1 && !run.closed) return `${data}h0`;
  const list = cubicsOf(run);
  for (let i = 0; i < segmentCount(run); i++) {
    const isStraight = run.nodes[i].out === null && run.nodes[(i + 1) % n].in === null;
    const isClosing = run.closed && i === n - 1;
    if (isStraight && isClosing) continue;
    const [, b, c, d] = list[i];
    data += isStraight ? `L${xy(d)}` : `C${xy(b)} ${xy(c)} ${xy(d)}`;
  }
  return run.closed ? `${data}Z` : data;
}
