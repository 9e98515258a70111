/**
 * Cheapest ways over a picture from one pixel to any other (Dijkstra 1959 with Dial's buckets, 1969, as in the live wire of
 * Mortensen and Barrett 1995). Only as far as the goal is looked; what was found is kept for the next goal from there.
 */
export class MinimalPath {
  private readonly dist: Int32Array;
  private readonly stamp: Uint16Array;
  /** The step that led to a pixel (0…7, 8 at the seed), and whether its cost is final (16). */
  private readonly came: Uint8Array;
  private readonly next: Int32Array;
  private readonly prev: Int32Array;
  private readonly heads = new Int32Array(BUCKETS).fill(-1);
  private turn = 0;
  private now = 0;
  private waiting = 0;
  private readonly offsets: number[];

  /** `stepCost` gives the cost of a step in one of eight directions onto a pixel, from 1 to `MOST_COST`. */
  constructor(
    private readonly width: number,
    private readonly height: number,
    private readonly stepCost: (to: number, direction: number) => number,
  ) {
    const n = width * height;
    this.dist = new Int32Array(n);
    this.stamp = new Uint16Array(n);
    this.came = new Uint8Array(n);
    this.next = new Int32Array(n);
    this.prev = new Int32Array(n);
    this.offsets = STEPS.map(([x, y]) => y * width + x);
  }

  /** Begins anew from a pixel. */
  from(seed: number): void {
    if (++this.turn > 0xffff) {
      this.stamp.fill(0);
      this.turn = 1;
    }
    this.heads.fill(-1);
    this.now = 0;
    this.waiting = 0;
    this.put(seed, 0, 8);
  }

  /** The pixels from the seed to `goal`; null when more than `budget` pixels would have to be settled to know. */
  to(goal: number, budget: number): number[] | null {
    let left = budget;
    while (!this.isFinal(goal)) {
      if (this.waiting === 0 || left-- <= 0) return null;
      this.settle(this.takeNearest());
    }
    const path = [goal];
    for (let i = goal; (this.came[i] & 15) < 8; path.push(i)) i -= this.offsets[this.came[i] & 15];
    return path.reverse();
  }

  private isFinal = (i: number): boolean => this.stamp[i] === this.turn && (this.came[i] & 16) !== 0;

  private put(i: number, cost: number, came: number): void {
    const bucket = cost & (BUCKETS - 1);
    const head = this.heads[bucket];
    this.dist[i] = cost;
    this.stamp[i] = this.turn;
    this.came[i] = came;
    this.next[i] = head;
    this.prev[i] = -1 - bucket;
    if (head >= 0) this.prev[head] = i;
    this.heads[bucket] = i;
    this.waiting++;
  }

  private take(i: number): void {
    const [before, after] = [this.prev[i], this.next[i]];
    if (before < 0) this.heads[-1 - before] = after;
    else this.next[before] = after;
    if (after >= 0) this.prev[after] = before;
    this.waiting--;
  }

  private takeNearest(): number {
    while (this.heads[this.now & (BUCKETS - 1)] < 0) this.now++;
    const i = this.heads[this.now & (BUCKETS - 1)];
    this.take(i);
    this.came[i] |= 16;
    return i;
  }

  private settle(i: number): void {
    const { width, height } = this;
    const x = i % width;
    const y = (i - x) / width;
    const base = this.dist[i];
    for (let d = 0; d < 8; d++) {
      const [dx, dy] = [DX[d], DY[d]];
      if (x + dx < 0 || y + dy < 0 || x + dx >= width || y + dy >= height) continue;
      const j = i + this.offsets[d];
      const isKnown = this.stamp[j] === this.turn;
      if (isKnown && (this.came[j] & 16) !== 0) continue;
      const cost = base + this.stepCost(j, d);
      if (isKnown) {
        if (cost >= this.dist[j]) continue;
        this.take(j);
      }
      this.put(j, cost, d);
    }
  }
}

/** The eight directions, clockwise from the right. */
export const STEPS: readonly (readonly [number, number])[] = [
  [1, 0],
  [1, 1],
  [0, 1],
  [-1, 1],
  [-1, 0],
  [-1, -1],
  [0, -1],
  [1, -1],
];
const DX = STEPS.map(([x]) => x);
const DY = STEPS.map(([, y]) => y);
const BUCKETS = 4096;
/** No step may cost more: the buckets go round. */
export const MOST_COST = BUCKETS - 1;
