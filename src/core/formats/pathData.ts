import { traceCubics, traceLine, type PathSink } from '../drawing/trace';
import type { Cubic } from '../geometry/cubic';
import type { Line } from '../drawing/schema';

const UNITS = [1, 10, 100, 1_000, 10_000, 100_000, 1_000_000];
/** Up to here a figure and its decimals are whole numbers that are quickly written. */
const MOST = 1e9;

/** A number with at most `precision` decimals, without needless zeros. */
export function decimal(value: number, precision: number): string {
  const unit = UNITS[precision] ?? 10 ** precision;
  const rounded = Math.round(value * unit);
  if (precision >= UNITS.length || !(Math.abs(rounded) < MOST)) return String(rounded / unit);
  if (rounded === 0) return '0';
  const size = Math.abs(rounded);
  const whole = Math.floor(size / unit);
  const sign = rounded < 0 ? '-' : '';
  let rest = size - whole * unit;
  if (rest === 0) return `${sign}${whole}`;
  let digits = precision;
  for (; rest % 10 === 0; digits--) rest /= 10;
  return `${sign}${whole}.${String(rest).padStart(digits, '0')}`;
}

/** SVG path data of a line (SVG 2, chapter 9): absolute M, L, C and Z. A lone node is a point: `M x y h0`. */
export const pathData = ({ runs }: Pick<Line, 'runs'>, precision = 3): string =>
  runs
    .map((run) => {
      const { nodes, closed } = run;
      if (nodes.length === 1 && !closed)
        return `M${decimal(nodes[0].point.x, precision)} ${decimal(nodes[0].point.y, precision)}h0`;
      const text = new PathText(precision);
      traceLine(text, { runs: [run] });
      return text.data;
    })
    .join('');

/** Path data of closed outlines. */
export function outlineData(outlines: readonly (readonly Cubic[])[], precision = 3): string {
  const text = new PathText(precision);
  for (const cubics of outlines) traceCubics(text, cubics, true);
  return text.data;
}

class PathText implements PathSink {
  data = '';

  constructor(private readonly precision: number) {}

  moveTo(x: number, y: number): void {
    this.data += `M${this.xy(x, y)}`;
  }

  lineTo(x: number, y: number): void {
    this.data += `L${this.xy(x, y)}`;
  }

  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    this.data += `C${this.xy(x1, y1)} ${this.xy(x2, y2)} ${this.xy(x, y)}`;
  }

  closePath(): void {
    this.data += 'Z';
  }

  private xy = (x: number, y: number): string => `${decimal(x, this.precision)} ${decimal(y, this.precision)}`;
}
