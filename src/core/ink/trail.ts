import { straightCubic, type Cubic } from '../geometry/cubic';
import { distance, type Point } from '../geometry/point';

/** Places nearer to each other than this are the same, in page units. */
const SAME = 1e-9;

/** A chain of cubics in the making: each begins where the one before ends. Straight on is one cubic, however often. */
export class Trail {
  readonly cubics: Cubic[] = [];
  private end: Point;
  /** Where the straight piece that the trail ends with began. */
  private straightFrom: Point | null = null;

  constructor({ x, y }: Point) {
    this.end = { x, y };
  }

  /** Straight to a point, unless the trail is there. */
  to({ x, y }: Point): this {
    if (distance(this.end, { x, y }) <= SAME) return this;
    const from = this.straightFrom;
    if (from && isStraightOn(from, this.end, { x, y })) {
      this.cubics[this.cubics.length - 1] = straightCubic(from, { x, y });
      this.end = { x, y };
      return this;
    }
    const begun = this.end;
    this.push(straightCubic(begun, { x, y }));
    this.straightFrom = begun;
    return this;
  }

  /** Along cubics that follow each other, straight to the first of them if it begins elsewhere. */
  along(cubics: readonly Cubic[]): this {
    if (cubics.length === 0) return this;
    this.to(cubics[0][0]);
    for (const [, b, c, d] of cubics) {
      if (isStraight([this.end, b, c, d])) this.to(d);
      else this.push([this.end, b, c, d]);
    }
    return this;
  }

  private push(c: Cubic): void {
    this.cubics.push(c);
    this.end = c[3];
    this.straightFrom = null;
  }
}

const area = (a: Point, b: Point, c: Point): number => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);

const isStraightOn = (a: Point, b: Point, c: Point): boolean =>
  Math.abs(area(a, b, c)) <= SAME * distance(a, c) && (b.x - a.x) * (c.x - b.x) + (b.y - a.y) * (c.y - b.y) > 0;

const isStraight = ([a, b, c, d]: Cubic): boolean =>
  isStraightOn(a, b, d) && isStraightOn(a, c, d) && isStraightOn(a, b, c);
