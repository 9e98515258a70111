import { edgeField, LEAST_RATIO, type EdgeField } from '../edges/edgeField';
import { fieldScale, labPictureOf, shrunkLab, type LabPicture } from '../edges/labPicture';
import { placedEdge } from '../edges/placedEdge';
import type { Picture } from '../colour/picture';
import type { Cubic } from '../geometry/cubic';
import { distance, type Point } from '../geometry/point';
import { LiveWire } from './liveWire';
import { NO_WAY, ON_TRAIL, stepCostOf, wayOf } from './followField';
import { MOST_COST, STEPS } from './minimalPath';
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

/**
 * Follows the edges of a photo from one place to another: a live wire over what stands out in colour, that goes where the hand
 * went and keeps to edges with the sides of those before (with the training of Mortensen and Barrett's live wire); then
 * placed between pixels across its way.
 */
export class EdgeFollower extends LiveWire {
  private readonly field: EdgeField;
  private readonly by: number;
  private readonly lab: LabPicture;
  private readonly cost: (to: number, direction: number) => number;
  /** How colours change from left to right of what was followed last, and where that ended. */
  private last: { sides: Float32Array; end: Point } | null = null;
  /** The same of what was followed before, while that goes on. */
  private learnt: Float32Array | null = null;

  constructor(image: Picture) {
    const [lab, by] = [labPictureOf(image), fieldScale(image)];
    const field = edgeField(shrunkLab(lab, by));
    super({ ...field, by });
    this.lab = lab;
    this.by = by;
    this.field = field;
    this.cost = stepCostOf(costsOf(field));
  }

  protected stepCost(to: number, direction: number): number {
    const own = this.cost(to, direction) + this.strange(to, direction);
    if (this.guide.near[to]) return this.field.trail[to] ? own : Math.min(own, ALONE);
    return Math.min(MOST_COST, own + (this.guide.isWhole ? UNGUIDED : LEAPT));
  }

  override path(from: Point, to: Point): Cubic[] | null {
    if (this.last && distance(this.last.end, from) < 2 * this.by) this.learnt = this.last.sides;
    const cubics = super.path(from, to);
    if (cubics && this.last) this.last.end = cubics.at(-1)![3];
    return cubics;
  }

  protected placed(pixels: readonly number[]): Point[] {
    this.last = { sides: this.sidesOf(pixels), end: this.placeOf(pixels.at(-1)!) };
    const way = pixels.map((i) => this.placeOf(i));
    return withoutLoops(placedEdge(this.lab, way, this.by));
  }

  override begin(): void {
    super.begin();
    this.learnt = this.last = null;
  }

  /** What a step onto an edge costs that has other colours to its sides than what was followed before. */
  private strange(to: number, direction: number): number {
    const { learnt } = this;
    const { trail, sides, channels } = this.field;
    if (!learnt || !trail[to]) return 0;
    const [dx, dy] = STEPS[direction];
    let cosine = 0;
    for (let c = 0; c < channels; c++) cosine += learnt[c] * sides[to * channels + c];
    return Math.round((OTHER / 2) * (1 - (this.turnsRight(to, dx, dy) * cosine) / 127));
  }

  /** 1 where the colours of an edge's pixel are told from left to right of a step there, −1 where the other way round. */
  private turnsRight(pixel: number, dx: number, dy: number): 1 | -1 {
    // The right of the way is where y grows when x does.
    const angle = this.field.angle[pixel];
    return dx * Math.sin(angle) - dy * Math.cos(angle) >= 0 ? 1 : -1;
  }

  /** How colours change from left to right along the last of a way, on the mean. */
  private sidesOf(pixels: readonly number[]): Float32Array {
    const { width, channels, sides, trail } = this.field;
    const sum = new Float32Array(channels);
    const end = pixels.slice(-LEARNT);
    end.forEach((i, k) => {
      if (k === 0 || !trail[i]) return;
      const [dx, dy] = [(i % width) - (end[k - 1] % width), Math.floor(i / width) - Math.floor(end[k - 1] / width)];
      const sign = this.turnsRight(i, dx, dy);
      for (let c = 0; c < channels; c++) sum[c] += sign * sides[i * channels + c];
    });
    const length = Math.hypot(...sum) || 1;
    return sum.map((v) => v / length);
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
