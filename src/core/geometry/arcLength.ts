import { derivative, pieceOf, type Cubic } from './cubic';
import { gaussLegendre } from './length';
import { lengthOf } from './point';

/** Parts that each cubic is measured in. */
const PARTS = 12;

/** A run's length, and places and pieces of it by their way along it. */
export type ArcLength = {
  readonly length: number;
  /** The cubic and the parameter at a way from the start; held within the run. */
  at(length: number): { segment: number; t: number };
  /** The cubics from one way to another. */
  piece(from: number, to: number): Cubic[];
};

/** Cubics by their arc length, by Gauss–Legendre quadrature of order 4 on a dozen parts of each. */
export function arcLengthOf(cubics: readonly Cubic[]): ArcLength {
  const ways = new Float64Array(cubics.length * PARTS + 1);
  cubics.forEach((c, s) => {
    for (let i = 0; i < PARTS; i++) {
      const k = s * PARTS + i;
      ways[k + 1] = ways[k] + speedOver(c, i / PARTS, (i + 1) / PARTS);
    }
  });
  const length = ways.at(-1)!;
  if (cubics.length === 0) return { length: 0, at: () => ({ segment: 0, t: 0 }), piece: () => [] };
  const at = (length: number): { segment: number; t: number } => {
    let [low, high] = [0, ways.length - 2];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (ways[middle] <= length) low = middle;
      else high = middle - 1;
    }
    const segment = Math.floor(low / PARTS);
    const from = (low % PARTS) / PARTS;
    const c = cubics[segment];
    const wanted = Math.max(0, Math.min(length, length) - ways[low]);
    let t = from + wanted / ((ways[low + 1] - ways[low]) * PARTS || 1);
    for (let i = 0; i < 2; i++) {
      const speed = lengthOf(derivative(c, t));
      if (speed > 1e-9) t += (wanted - speedOver(c, from, t)) / speed;
      t = Math.min(from + 1 / PARTS, Math.max(from, t));
    }
    return { segment, t: Math.min(1, Math.max(0, t)) };
  };
  const piece = (from: number, to: number): Cubic[] => {
    const [a, b] = [at(from), at(to)];
    const out: Cubic[] = [];
    for (let s = a.segment; s <= b.segment; s++) {
      const [t0, t1] = [s === a.segment ? a.t : 0, s === b.segment ? b.t : 1];
      if (t1 > t0) out.push(t0 === 0 && t1 === 1 ? cubics[s] : pieceOf(cubics[s], t0, t1));
    }
    return out;
  };
  return { length, at, piece };
}

const { nodes, weights } = gaussLegendre(4);

/** The arc length between two close parameters: Gauss–Legendre quadrature of order 4. */
export function speedOver(c: Cubic, from: number, to: number): number {
  const [half, middle] = [(to - from) / 2, (to + from) / 2];
  let sum = 0;
  for (let i = 0; i < 4; i++) sum += weights[i] * lengthOf(derivative(c, middle + half * nodes[i]));
  return sum * half;
}
