import { distance, type Point } from '../geometry/point';

/** The hand's way is this broad to either side. */
const HAND = 9;
/** Places of the pointer further apart than this tell nothing of the way between them. */
const LEAP = 80;

/** Where the hand has been since the place that is followed from. */
export class Guide {
  /** 1 within `HAND` px of its way. */
  readonly near: Uint8Array;
  private marked: number[] = [];
  private from: Point | null = null;
  private last: Point | null = null;
  /** Whether the hand has been seen all along its way. */
  isWhole = true;

  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {
    this.near = new Uint8Array(width * height);
  }

  begin(): void {
    for (const i of this.marked) this.near[i] = 0;
    this.marked = [];
    this.from = this.last = null;
    this.isWhole = true;
  }

  /** The hand came to a place, following from `from`, px of the field. A leap marks only where it came down. */
  move(from: Point, to: Point): void {
    if (!this.from || distance(from, this.from) > 0) {
      this.begin();
      this.from = from;
    }
    this.isWhole &&= distance(this.last ?? from, to) < LEAP;
    const start = this.last && distance(this.last, to) < LEAP ? this.last : to;
    this.last = to;
    const steps = Math.max(1, Math.ceil(distance(start, to) / (HAND / 2)));
    for (let k = 0; k <= steps; k++)
      this.mark(start.x + ((to.x - start.x) * k) / steps, start.y + ((to.y - start.y) * k) / steps);
  }

  private mark(x: number, y: number): void {
    const { width, height, near } = this;
    for (let v = Math.max(0, Math.ceil(y - HAND)); v <= Math.min(height - 1, y + HAND); v++) {
      for (let u = Math.max(0, Math.ceil(x - HAND)); u <= Math.min(width - 1, x + HAND); u++) {
        const i = v * width + u;
        if (near[i] || (u - x) ** 2 + (v - y) ** 2 > HAND * HAND) continue;
        near[i] = 1;
        this.marked.push(i);
      }
    }
  }
}
