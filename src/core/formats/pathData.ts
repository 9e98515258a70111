import { traceCubics, traceLine, type PathSink } from '../drawing/trace';
import type { Cubic } from '../geometry/cubic';
import type { Line } from '../drawing/schema';

/** A number with at most `precision` decimals, without needless zeros. */
export function decimal(value: number, precision: number): string {
  const unit = 10 ** precision;
  return String(Math.round(value * unit) / unit);
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
