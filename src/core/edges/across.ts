import { stepOf, type Places } from '../geometry/along';
import { UNITS, type LabPicture } from './labPicture';

/** Steps across a line, px. */
export const STEP = 0.5;
/** The kernels reach so many deviations to either side. */
const REACH = 3;

/** What a derivative of a Gaussian finds across a line: its deviation across and along, px. */
export type EdgeScale = { readonly across: number; readonly along: number };

/**
 * How much colours change across a line at each of its places: rows of vectors (a figure a channel, OKLab) from `-reach` to
 * `reach`, `STEP` px apart, from left to right of the way. A sharp edge has the difference of its two sides, whatever the
 * scale; a soft one less. `about`: how far aside of each place its row has its middle.
 */
export type Changes = {
  readonly n: number;
  readonly width: number;
  readonly channels: 1 | 3;
  readonly values: Float32Array;
};

/** The colours across a line: rows as of `Changes`, of colours themselves. */
export class Across {
  private readonly rows: Float32Array;
  private readonly wide: number;
  private readonly step: number;
  /** Where a line has a corner between a place and the next: colours beyond it are another edge's. */
  private readonly turns: Uint8Array;

  constructor(
    private readonly picture: LabPicture,
    private readonly places: Places,
    private readonly reach: number,
    widest: number,
    about: Float64Array | null = null,
  ) {
    const half = Math.ceil(reach / STEP) + Math.ceil((REACH * widest) / STEP);
    this.wide = 2 * half + 1;
    this.step = stepOf(places);
    this.turns = Uint8Array.from({ length: places.n }, (_, i) => (turnsAfter(places, i) ? 1 : 0));
    const row = this.wide * picture.channels;
    this.rows = new Float32Array(places.n * row);
    for (let i = 0; i < places.n; i++)
      sample(picture, places, i, about ? about[i] : 0, half, this.rows.subarray(i * row, (i + 1) * row));
  }

  /** The changes at all places. */
  changes({ across, along }: EdgeScale): Changes {
    const { channels } = this.picture;
    const { n } = this.places;
    const width = 2 * Math.ceil(this.reach / STEP) + 1;
    const values = new Float32Array(n * width * channels);
    const evened = this.evening(along);
    const kernel = derivative(across);
    for (let i = 0; i < n; i++) this.differ(evened(i), kernel, values.subarray(i * width * channels));
    return { n, width, channels, values };
  }

  /** And in the middle of one place's row, a figure a channel. */
  changeAt(i: number, { across, along }: EdgeScale): Float32Array {
    const values = new Float32Array(this.picture.channels);
    this.differ(this.evening(along)(i), derivative(across), values, 0);
    return values;
  }

  /** Differences to both sides along a row, as far to both sides of its middle as is asked for. */
  private differ(row: Float32Array, kernel: Float32Array, to: Float32Array, half = Math.ceil(this.reach / STEP)): void {
    const { channels } = this.picture;
    const taps = kernel.length - 1;
    const first = ((this.wide - 1) / 2 - half) * channels;
    const count = (2 * half + 1) * channels;
    for (let k = 0; k < count; k++) {
      let sum = 0;
      for (let d = 1, by = channels; d <= taps; d++, by += channels)
        sum += kernel[d] * (row[first + k + by] - row[first + k - by]);
      to[k] = sum;
    }
  }

  /** Gives each row as the weighted mean of its neighbours: what is chance evens out along an edge. The same array each time. */
  private evening(along: number): (i: number) => Float32Array {
    const { n, closed } = this.places;
    const row = this.wide * this.picture.channels;
    const most = Math.min(n - 1, Math.round((2 * along) / this.step));
    if (most < 1) return (i) => this.rows.subarray(i * row, (i + 1) * row);
    const weights = Float32Array.from({ length: most + 1 }, (_, d) => Math.exp(-0.5 * ((d * this.step) / along) ** 2));
    const result = new Float32Array(row);
    return (i) => {
      for (let k = 0, from = i * row; k < row; k++) result[k] = this.rows[from + k];
      let sum = 1;
      for (const side of [-1, 1])
        for (let d = 1; d <= most; d++) {
          const j = closed ? (i + side * d + n) % n : i + side * d;
          if (j < 0 || j >= n || this.turns[side > 0 ? (j + n - 1) % n : j]) break;
          const w = weights[d];
          sum += w;
          for (let k = 0, from = j * row; k < row; k++) result[k] += w * this.rows[from + k];
        }
      for (let k = 0; k < row; k++) result[k] /= sum;
      return result;
    };
  }
}

/** A line that turns by more than this between two places has a corner there (the cosine). */
const CORNER = 0.92;

function turnsAfter({ n, nx, ny, closed }: Places, i: number): boolean {
  const j = i + 1 < n ? i + 1 : closed ? 0 : i;
  return nx[i] * nx[j] + ny[i] * ny[j] < CORNER;
}

const derivatives = new Map<number, Float32Array>();

/** The right half of a Gaussian's derivative, a weight a step, so that a step of 1 gives 1. */
function derivative(sigma: number): Float32Array {
  let kernel = derivatives.get(sigma);
  if (!kernel) {
    const taps = Math.ceil((REACH * sigma) / STEP);
    kernel = Float32Array.from({ length: taps + 1 }, (_, d) => d * Math.exp(-0.5 * ((d * STEP) / sigma) ** 2));
    const sum = kernel.reduce((a, b) => a + b);
    derivatives.set(sigma, (kernel = kernel.map((w) => w / sum)));
  }
  return kernel;
}

/** The colours across one place, between pixels' centres; beyond the picture its rim goes on. */
function sample(
  { width, height, channels, values }: LabPicture,
  places: Places,
  i: number,
  off: number,
  half: number,
  row: Float32Array,
): void {
  const [dx, dy] = [STEP * places.nx[i], STEP * places.ny[i]];
  const [x, y] = [places.x[i] + off * places.nx[i] - 0.5, places.y[i] + off * places.ny[i] - 0.5];
  const [right, bottom] = [width - 1.001, height - 1.001];
  for (let k = -half, to = 0; k <= half; k++) {
    const px = Math.max(0, Math.min(right, x + k * dx));
    const py = Math.max(0, Math.min(bottom, y + k * dy));
    const l = px | 0;
    const t = py | 0;
    const [fx, fy] = [px - l, py - t];
    const at = (t * width + l) * channels;
    const below = at + (t + 1 < height ? width * channels : 0);
    const beside = l + 1 < width ? channels : 0;
    for (let c = 0; c < channels; c++, to++) {
      const a = values[at + c] + (values[at + beside + c] - values[at + c]) * fx;
      const b = values[below + c] + (values[below + beside + c] - values[below + c]) * fx;
      row[to] = (a + (b - a) * fy) / UNITS;
    }
  }
}
