import { edgeField, LEAST_RATIO, type EdgeField } from '../edges/edgeField';
import { fieldScale, labPictureOf, shrunkLab, type LabPicture } from '../edges/labPicture';
import { placedEdge } from '../edges/placedEdge';
import type { Picture } from '../colour/picture';
import type { Cubic } from '../geometry/cubic';
import { fitCurve } from '../geometry/fit/fitCurve';
import { distance, type Point } from '../geometry/point';
import { BUDGET, REACH, type Following } from './follow';
import { NO_WAY, ON_TRAIL, stepCostOf, wayOf } from './followField';
import { Guide } from './guide';
import { MinimalPath, MOST_COST, STEPS } from './minimalPath';
import { endsDrawnTo } from './pencilStroke';
import { withoutLoops } from './withoutLoops';

/** An edge that stands out so many times is as clear as can be. */
const CLEAR = 14;
/** What a step onto a pixel costs: more on a faint edge, more where there is none. */
const FAINT = 90;
const NOTHING = 240;
/** Where the hand went no more than this, though no edge is seen there; where it did not, so much more. */
const ALONE = 60;
const UNGUIDED = 60;
/** The same after a leap, that tells of no way. */
const LEAPT = 6;
/** And on an edge whose sides have other colours than those of what was followed before, at most. */
const OTHER = 70;
/** These are told from so many px of it. */
const LEARNT = 60;
const TOLERANCE = 1;

/**
 * Follows the edges of a photo from one place to another: a live wire over what stands out in colour, that goes where the hand
 * went and keeps to edges with the sides of those before (Mortensen and Barrett 1995, "Intelligent Scissors", with their training); then
 * placed between pixels across its way, and fitted with few cubics.
 */
export class EdgeFollower implements Following {
  private readonly field: EdgeField;
  private readonly by: number;
  private readonly lab: LabPicture;
  private readonly search: MinimalPath;
  private readonly guide: Guide;
  /** How colours change from left to right of what was followed last, and where that ended. */
  private learnt: { sides: Float32Array; end: Point } | null = null;
  private last: { sides: Float32Array; end: Point } | null = null;

  constructor(image: Picture) {
    this.lab = labPictureOf(image);
    this.by = fieldScale(image);
    this.field = edgeField(shrunkLab(this.lab, this.by));
    const { width, height } = this.field;
    this.guide = new Guide(width, height);
    const cost = stepCostOf(costsOf(this.field));
    const { near } = this.guide;
    const { trail } = this.field;
    this.search = new MinimalPath(width, height, (to, d) => {
      const own = cost(to, d) + this.strange(to, d);
      if (near[to]) return trail[to] ? own : Math.min(own, ALONE);
      return Math.min(MOST_COST, own + (this.guide.isWhole ? UNGUIDED : LEAPT));
    });
  }

  path(from: Point, to: Point): Cubic[] | null {
    const { by, field } = this;
    const [seed, goal] = [this.nearest(from), this.nearest(to)];
    this.guide.move({ x: from.x / by, y: from.y / by }, { x: to.x / by, y: to.y / by });
    if (seed < 0 || goal < 0 || seed === goal) return null;
    this.learnt = this.last && distance(this.last.end, from) < 2 * by ? this.last : this.learnt;
    this.search.from(seed);
    const pixels = this.search.to(goal, BUDGET);
    if (!pixels || pixels.length < 4) return null;
    const way = pixels.map((i): Point => {
      const [x, y] = [i % field.width, Math.floor(i / field.width)];
      return { x: (x + 0.5) * by, y: (y + 0.5) * by };
    });
    const points = endsDrawnTo(
      withoutLoops(placedEdge(this.lab, way, by)),
      from,
      field.trail[goal] ? null : to,
      TOLERANCE,
    );
    const distinct = points.filter((p, i) => i === 0 || distance(p, points[i - 1]) > 1e-6);
    if (distinct.length < 3) return null;
    const cubics = fitCurve(distinct, { tolerance: TOLERANCE });
    cubics[0] = [from, cubics[0][1], cubics[0][2], cubics[0][3]];
    this.last = { sides: this.sidesOf(pixels), end: cubics.at(-1)![3] };
    return cubics;
  }

  begin(): void {
    this.guide.begin();
    this.learnt = this.last = null;
  }

  lead(from: Point, by: Point): void {
    const k = this.by;
    this.guide.move({ x: from.x / k, y: from.y / k }, { x: by.x / k, y: by.y / k });
  }

  middleNear(p: Point): Point {
    const i = this.nearest(p);
    const { width, trail } = this.field;
    if (i < 0 || !trail[i]) return p;
    return { x: ((i % width) + 0.5) * this.by, y: (Math.floor(i / width) + 0.5) * this.by };
  }

  /** What a step onto an edge costs that has other colours to its sides than what was followed before. */
  private strange(to: number, direction: number): number {
    const { learnt } = this;
    const { trail, sides, channels, angle } = this.field;
    if (!learnt || !trail[to]) return 0;
    const [dx, dy] = STEPS[direction];
    // The right of the way is where y grows when x does.
    const isRight = -dy * Math.cos(angle[to]) + dx * Math.sin(angle[to]) >= 0;
    let cosine = 0;
    for (let c = 0; c < channels; c++) cosine += learnt.sides[c] * sides[to * channels + c];
    return Math.round((OTHER / 2) * (1 - (isRight ? cosine : -cosine) / 127));
  }

  /** How colours change from left to right along the last of a way, on the mean. */
  private sidesOf(pixels: readonly number[]): Float32Array {
    const { width, channels, sides, angle, trail } = this.field;
    const sum = new Float32Array(channels);
    const end = pixels.slice(-LEARNT);
    end.forEach((i, k) => {
      if (k === 0 || !trail[i]) return;
      const [dx, dy] = [(i % width) - (end[k - 1] % width), Math.floor(i / width) - Math.floor(end[k - 1] / width)];
      const isRight = -dy * Math.cos(angle[i]) + dx * Math.sin(angle[i]) >= 0;
      for (let c = 0; c < channels; c++) sum[c] += (isRight ? 1 : -1) * sides[i * channels + c];
    });
    const length = Math.hypot(...sum) || 1;
    return sum.map((v) => v / length);
  }

  /** The pixel of an edge nearest to a place, of those in reach; the place's own where there is none; −1 outside. */
  private nearest(p: Point): number {
    const { width, height, trail } = this.field;
    const [cx, cy] = [Math.floor(p.x / this.by), Math.floor(p.y / this.by)];
    if (cx < 0 || cy < 0 || cx >= width || cy >= height) return -1;
    const reach = Math.max(2, Math.round(REACH / this.by));
    let [best, least] = [cy * width + cx, Infinity];
    for (let y = Math.max(0, cy - reach); y <= Math.min(height - 1, cy + reach); y++)
      for (let x = Math.max(0, cx - reach); x <= Math.min(width - 1, cx + reach); x++) {
        const d = Math.hypot(x - cx, y - cy);
        if (trail[y * width + x] && d < least) [best, least] = [y * width + x, d];
      }
    return best;
  }
}

/** What a step onto each pixel costs, and which way its edge runs. */
function costsOf({ ratio, trail, angle }: EdgeField): { base: Uint16Array; way: Uint8Array } {
  const base = new Uint16Array(ratio.length);
  const way = new Uint8Array(ratio.length).fill(NO_WAY);
  for (let i = 0; i < ratio.length; i++) {
    if (!trail[i]) {
      base[i] = NOTHING - Math.round(0.4 * NOTHING * Math.min(1, ratio[i] / CLEAR));
      continue;
    }
    const clear = Math.min(1, Math.log(ratio[i] / LEAST_RATIO) / Math.log(CLEAR / LEAST_RATIO));
    base[i] = ON_TRAIL + Math.round(FAINT * (1 - clear) ** 2);
    way[i] = wayOf(angle[i] + Math.PI / 2);
  }
  return { base, way };
}
