import { STEP, type Profiles } from './profile';

/** How far to each side of its middle a thin stroke is looked at, px beyond its half-width. */
const BESIDE = 5;
/** No more places than this are fitted, and no fewer tell anything. */
const [MOST, LEAST] = [80, 8];
/** The blurs that are tried, px: as a standard deviation. The least is what the pixels themselves do. */
const BLURS = [0.4, 0.6, 0.8, 1, 1.2, 1.4, 1.6, 1.8, 2, 2.2];
const FINELY = 0.05;
/** The widths that a blur is worked out for, px. */
const [NARROW, WIDE, APART] = [0.2, 16, 0.1];
/** It gets lighter beside the stroke, and no darker again by more than this share of it. */
const RISE = 0.12;

/** A place of a thin stroke: samples across it as px from its middle, and how much darker than paper each is. */
type Row = {
  readonly place: number;
  readonly xs: number[];
  readonly vs: number[];
  readonly sum: number;
  readonly peak: number;
};

/**
 * How wide a thin stroke is at some of its places, px, whatever blurred it: its ink is taken as even from rim to rim and
 * seen through a Gaussian kernel. Of all blurs, the one whose profiles lie nearest to those seen, over all places together, with
 * widths that give the same sum and the same height in the middle. Empty where too few places are free of other ink.
 */
export function softWidths(profiles: Profiles, offset: Float64Array, half: number, grain: number): Map<number, number> {
  const rows = rowsOf(profiles, offset, half, grain);
  if (rows.length < LEAST) return new Map();
  const fitted = (blur: number): Fit => {
    const widthFor = widthsBy(blur);
    const widths = rows.map((r) => widthFor(r.sum / r.peak));
    const costs = rows.map((r, i) => misfit(r, widths[i], blur)).sort((a, b) => a - b);
    // Places that nothing explains have no say.
    return { blur, widths, cost: costs.slice(0, Math.ceil(0.8 * costs.length)).reduce((a, b) => a + b, 0) };
  };
  const bestOf = (blurs: number[]): Fit => blurs.map(fitted).reduce((a, b) => (b.cost < a.cost ? b : a));
  const rough = bestOf(BLURS);
  const { widths } = bestOf([-3, -2, -1, 0, 1, 2, 3].map((k) => Math.max(BLURS[0], rough.blur + k * FINELY)));
  return new Map(rows.map((r, i) => [r.place, widths[i]]));
}

/** What rows look like through a blur: the width of each, and how far off they are together. */
type Fit = { blur: number; widths: number[]; cost: number };

function rowsOf({ n, width, values }: Profiles, offset: Float64Array, half: number, grain: number): Row[] {
  const reach = Math.round((half + BESIDE) / STEP);
  const middle = (width - 1) / 2;
  const stride = Math.max(1, Math.floor(n / MOST));
  const rows: Row[] = [];
  for (let place = 0; place < n; place += stride) {
    if (Number.isNaN(offset[place])) continue;
    const start = Math.round(middle + offset[place] / STEP);
    if (start - reach < 1 || start + reach > width - 2) continue;
    const at = (k: number): number => values[place * width + k] - grain;
    if (!isAlone(at, start, reach)) continue;
    let [sum, moment] = [0, 0];
    for (let k = start - reach; k <= start + reach; k++) {
      sum += at(k);
      moment += at(k) * k;
    }
    const centre = moment / sum;
    if (!(sum > 0) || Math.abs(centre - start) > reach / 2) continue;
    const between = (k: number): number => {
      const left = Math.floor(k);
      return at(left) + (at(left + 1) - at(left)) * (k - left);
    };
    const ks = Array.from({ length: 2 * reach + 1 }, (_, i) => start - reach + i);
    rows.push({
      place,
      xs: ks.map((k) => (k - centre) * STEP),
      vs: ks.map(at),
      sum: sum * STEP,
      peak: (between(centre - 1) + between(centre) + between(centre + 1)) / 3,
    });
  }
  return rows.filter((r) => r.peak > 0);
}

/** Whether a row has no other ink than its stroke's. */
function isAlone(at: (k: number) => number, start: number, reach: number): boolean {
  const height = Math.max(at(start - 1), at(start), at(start + 1));
  for (const sign of [1, -1]) {
    let lowest = height;
    for (let d = 0; d <= reach; d++) {
      const v = at(start + sign * d);
      if (v > lowest + RISE * height && lowest < 0.7 * height) return false;
      lowest = Math.min(lowest, v);
    }
    if (lowest > RISE * height) return false;
  }
  return true;
}

/** How dark a stroke of full ink 1 is at `x` px from its middle, seen through a Gaussian kernel. */
const seen = (x: number, width: number, blur: number): number =>
  (erf((x + width / 2) / (Math.SQRT2 * blur)) - erf((x - width / 2) / (Math.SQRT2 * blur))) / 2;

function misfit({ xs, vs, sum, peak }: Row, width: number, blur: number): number {
  const full = sum / width;
  return xs.reduce((total, x, i) => total + (vs[i] - full * seen(x, width, blur)) ** 2, 0) / peak ** 2;
}

/** The width of a stroke by its sum over its height in the middle, as `rowsOf` has them. */
function widthsBy(blur: number): (ratio: number) => number {
  const widths = Array.from({ length: Math.round((WIDE - NARROW) / APART) }, (_, i) => NARROW + i * APART);
  const ratios = widths.map((w) => (3 * w) / (2 * seen(STEP, w, blur) + seen(0, w, blur)));
  return (ratio) => {
    const k = ratios.findIndex((r) => r >= ratio);
    if (k === 0) return NARROW;
    if (k < 0) return ratio;
    return widths[k - 1] + ((ratio - ratios[k - 1]) / (ratios[k] - ratios[k - 1])) * APART;
  };
}

/** The error function to 1.5e-7 (Abramowitz and Stegun 1964, 7.1.26). */
function erf(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x));
  const sum = t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  const y = 1 - sum * Math.exp(-x * x);
  return x >= 0 ? y : -y;
}
