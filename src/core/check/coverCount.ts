import type { InkWithRadius } from '../assist/inkRadius';
import { placesAlong, type CubicRun } from '../geometry/along';
import type { Box } from '../geometry/point';
import { grayImage, type GrayImage } from '../raster/grayImage';

/** Thinner ink than this, as its radius in px, is taken pixel by pixel. */
const THIN = 1.5;
/** A pixel whose neighbour's radius is so much larger lies on the slope to a stroke's middle. */
const DEEPER = 0.9;

/**
 * Which of a picture's ink has a line, counted line by line: what a line that moves lets go of and takes up is all that
 * is looked at. Ink within `reach` px of a line counts, and with it the stroke that it is part of, as wide as that is there.
 */
export class CoverCount {
  /** How many lines each pixel has. */
  private readonly lines: Uint16Array;
  private readonly taken = new Map<string, Int32Array>();
  /** By which search each pixel was found last: even near a line, odd as part of a stroke that has one. */
  private readonly found: Uint32Array;
  private search = 0;
  private readonly all: number;
  private open: number;
  private readonly inBoxes: { all: number; open: number }[];

  /** `boxes`, px of the picture, have shares of their own. */
  constructor(
    private readonly known: InkWithRadius,
    private readonly reach: number,
    private readonly boxes: readonly Box[] = [],
  ) {
    const { mask } = this.known.ink;
    this.lines = new Uint16Array(mask.length);
    this.found = new Uint32Array(mask.length);
    this.all = this.open = mask.reduce((n, v) => n + v, 0);
    this.inBoxes = boxes.map((b) => {
      const all = this.inkIn(b);
      return { all, open: all };
    });
  }

  /** The share of the ink that has a line, 0…1; 1 where there is no ink. */
  get covered(): number {
    return this.all === 0 ? 1 : 1 - this.open / this.all;
  }

  /** The same for each of the boxes; null where there is no ink in it. */
  get coveredInBoxes(): (number | null)[] {
    return this.inBoxes.map(({ all, open }) => (all === 0 ? null : 1 - open / all));
  }

  /** The ink that has no line: black (0) on white (255). */
  untraced(): GrayImage {
    const { mask, width, height } = this.known.ink;
    const image = grayImage(width, height);
    for (let i = 0; i < mask.length; i++) image.data[i] = mask[i] && this.lines[i] === 0 ? 0 : 255;
    return image;
  }

  /** Whether a pixel of the ink has no line. */
  isOpen = (i: number): boolean => this.known.ink.mask[i] === 1 && this.lines[i] === 0;

  /** Counts a line, or a part of one, by these runs, and no longer by those it had; none takes it away. */
  set(line: string, runs: readonly CubicRun[]): void {
    for (const i of this.taken.get(line) ?? []) if (--this.lines[i] === 0) this.turn(i, 1);
    if (runs.length === 0) {
      this.taken.delete(line);
      return;
    }
    const pixels = this.inkAlong(runs);
    for (const i of pixels) if (this.lines[i]++ === 0) this.turn(i, -1);
    this.taken.set(line, pixels);
  }

  /** A pixel has lost its last line (1), or has got its first one (−1). */
  private turn(i: number, by: 1 | -1): void {
    this.open += by;
    if (this.boxes.length === 0) return;
    const { width } = this.known.ink;
    const x = i % width;
    const y = (i - x) / width;
    this.boxes.forEach((b, k) => {
      if (holds(b, x, y)) this.inBoxes[k].open += by;
    });
  }

  private inkIn(b: Box): number {
    const { mask, width, height } = this.known.ink;
    let all = 0;
    for (let y = Math.max(0, Math.floor(b.minY)); y < Math.min(height, Math.ceil(b.maxY)); y++)
      for (let x = Math.max(0, Math.floor(b.minX)); x < Math.min(width, Math.ceil(b.maxX)); x++)
        all += mask[y * width + x];
    return all;
  }

  /** The ink pixels that have these runs. */
  private inkAlong(runs: readonly CubicRun[]): Int32Array {
    const { radius, ink } = this.known;
    const { width } = ink;
    this.search += 2;
    const near = this.search;
    const pixels: number[] = [];
    const step = Math.min(this.reach / 2, Math.max(1, this.reach / 3));
    for (const run of runs) {
      const { n, x, y } = placesAlong(run, step);
      for (let i = 0; i < n; i++) this.takeDisc(x[i], y[i], this.reach, near, pixels);
    }
    const count = pixels.length;
    for (let k = 0; k < count; k++) {
      const i = pixels[k];
      const r = radius[i];
      if (r <= THIN) continue;
      if (this.isOnSlope(i, near)) continue;
      // A disc as large as the ink around its middle is all ink: of one stroke.
      this.takeDisc((i % width) + 0.5, ((i / width) | 0) + 0.5, r, near + 1, pixels);
    }
    return Int32Array.from(pixels);
  }

  /** Whether a neighbour near the line is deeper in the stroke: its disc holds this pixel's. */
  private isOnSlope(i: number, near: number): boolean {
    const { radius, ink } = this.known;
    const { found } = this;
    const least = radius[i] + DEEPER;
    const { width } = ink;
    return (
      (radius[i - 1] > least && found[i - 1] === near) ||
      (radius[i + 1] > least && found[i + 1] === near) ||
      (radius[i - width] > least && found[i - width] === near) ||
      (radius[i + width] > least && found[i + width] === near)
    );
  }

  /** The ink pixels whose centres lie within a disc and that this search has not found yet, marked as found. */
  private takeDisc(x: number, y: number, r: number, mark: number, into: number[]): void {
    const { mask, width, height } = this.known.ink;
    const { found, search } = this;
    const top = Math.max(0, Math.ceil(y - r - 0.5));
    const bottom = Math.min(height - 1, Math.floor(y + r - 0.5));
    for (let v = top; v <= bottom; v++) {
      const dy = v + 0.5 - y;
      const half = Math.sqrt(Math.max(0, r * r - dy * dy));
      const last = v * width + Math.min(width - 1, Math.floor(x + half - 0.5));
      for (let i = v * width + Math.max(0, Math.ceil(x - half - 0.5)); i <= last; i++) {
        if (mask[i] === 0 || found[i] >= search) continue;
        found[i] = mark;
        into.push(i);
      }
    }
  }
}

const holds = (b: Box, x: number, y: number): boolean =>
  x >= Math.floor(b.minX) && y >= Math.floor(b.minY) && x < Math.ceil(b.maxX) && y < Math.ceil(b.maxY);
