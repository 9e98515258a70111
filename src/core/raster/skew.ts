import { edgePoints, reducedTo, type EdgePoint } from './edges';
import { assertGrayImage, type GrayImage } from './grayImage';

const SEARCHED = 1000;
/** Pictures that lie further askew than this were meant to. Degrees. */
const MOST_SKEW = 20;

/**
 * By how many degrees a picture must be turned (clockwise is positive) so that the edges of its paper or its ruled lines
 * lie straight; null when nothing straight is found. Of all angles the one is taken at which the edges, projected along
 * it, fall most closely together (projection profile: Postl 1986; here of edges, both ways at once, by the square of
 * what each row holds).
 * @throws RangeError for a picture without pixels.
 */
export function skewAngle(image: GrayImage): number | null {
  assertGrayImage(image);
  const { image: small } = reducedTo(image, SEARCHED);
  const points = edgePoints(small, 1.2, 0.03);
  const energy = (degrees: number): number => profileEnergy(points, degrees, small);
  let best = { degrees: 0, energy: -1 };
  const flat: number[] = [];
  for (let d = -MOST_SKEW; d <= MOST_SKEW; d += 0.25) {
    const e = energy(d);
    flat.push(e);
    if (e > best.energy) best = { degrees: d, energy: e };
  }
  flat.sort((a, b) => a - b);
  if (best.energy < 2.5 * flat[flat.length >> 1] || points.length < 100) return null;
  for (const step of [0.1, 0.03, 0.01]) {
    for (const d of [-3, -2, -1, 1, 2, 3].map((k) => best.degrees + k * step)) {
      const e = energy(d);
      if (e > best.energy) best = { degrees: d, energy: e };
    }
  }
  return -best.degrees;
}

/** How closely edges that run within 4° of an angle fall together when projected along it. */
function profileEnergy(points: readonly EdgePoint[], degrees: number, { width, height }: GrayImage): number {
  const a = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(a), Math.sin(a)];
  const reach = Math.ceil(Math.hypot(width, height));
  const rows = new Float32Array(2 * reach + 2);
  const columns = new Float32Array(2 * reach + 2);
  const least = Math.cos((4 * Math.PI) / 180);
  for (const p of points) {
    const weight = Math.min(p.strength, 0.2);
    const across = -sin * p.nx + cos * p.ny;
    const along = cos * p.nx + sin * p.ny;
    if (Math.abs(across) > least) spread(rows, -sin * p.x + cos * p.y + reach, weight);
    else if (Math.abs(along) > least) spread(columns, cos * p.x + sin * p.y + reach, weight);
  }
  let energy = 0;
  for (let i = 0; i < rows.length; i++) energy += rows[i] * rows[i] + columns[i] * columns[i];
  return energy;
}

function spread(bins: Float32Array, at: number, weight: number): void {
  const i = Math.floor(at);
  bins[i] += weight * (i + 1 - at);
  bins[i + 1] += weight * (at - i);
}
