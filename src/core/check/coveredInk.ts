import type { Drawing, Line, Reference } from '../drawing/schema';
import { boxOfPoints } from '../geometry/box';
import type { Cubic } from '../geometry/cubic';
import type { Box } from '../geometry/point';
import { inGrey } from '../colour/picture';
import type { GrayImage } from '../raster/grayImage';
import { CoverCount } from './coverCount';
import { patchesOf } from './coverage';
import { placementOf, runsInPicture } from '../drawing/beneath';
import { seenLines } from '../drawing/items';
import { placementKey, type Pictures } from './pictures';

/** How much of one reference's ink has a line, whole and by the drawing's parts (null: there is no ink in it). */
export type CoverFigures = {
  readonly reference: string;
  readonly covered: number;
  readonly parts: readonly { readonly sheet: string; readonly covered: number | null }[];
};

/** The ink of a reference that has no line: the picture of it, black on white, and boxes in page units, largest first. */
export type Untraced = { readonly image: GrayImage; readonly patches: readonly Box[] };

const MOST_PATCHES = 200;

/** A line as it is counted, segment by segment: of a line that moves only what differs is counted anew. */
type CountedLine = { runs: Line['runs']; segments: readonly Cubic[] };

type Counted = { key: string; image: GrayImage; count: CoverCount; lines: Map<string, CountedLine> };

/** Which ink of a drawing's references has a line. Lines are counted once, and again when they change. */
export class CoveredInk {
  private readonly counts = new Map<string, Counted>();

  constructor(private readonly pictures: Pictures) {}

  /** Counts the seen lines that changed since, a line a step. */
  *counting(d: Drawing, reach: number): Generator<void, void> {
    for (const r of this.measuredFrom(d)) {
      const counted = this.of(d, r, reach);
      const gone = new Set(counted.lines.keys());
      for (const line of seenLines(d)) {
        gone.delete(line.id);
        if (counted.lines.get(line.id)?.runs === line.runs) continue;
        countLine(counted, r, line);
        yield;
      }
      for (const id of gone) countLine(counted, r, { id, runs: [] });
    }
  }

  /** What is counted. */
  figures(d: Drawing, reach: number): CoverFigures[] {
    return this.measuredFrom(d).map((r) => {
      const { count } = this.of(d, r, reach);
      const shares = count.coveredInBoxes;
      const parts = partsOf(d).map(({ sheet }, i) => ({ sheet, covered: shares[i] }));
      return { reference: r.id, covered: count.covered, parts };
    });
  }

  /** What would be with some lines of the drawing as they are under a hand; they count as such from then on. */
  moved(d: Drawing, lines: readonly Line[], reach: number): CoverFigures[] {
    for (const r of this.measuredFrom(d)) {
      const counted = this.of(d, r, reach);
      for (const line of lines) if (counted.lines.get(line.id)?.runs !== line.runs) countLine(counted, r, line);
    }
    return this.figures(d, reach);
  }

  /** The ink of a reference that has no line; null for one that is not measured from. */
  untraced(d: Drawing, id: string, reach: number): Untraced | null {
    const r = this.measuredFrom(d).find((x) => x.id === id);
    if (!r) return null;
    const { count, image } = this.of(d, r, reach);
    const { onPage } = placementOf(r, image);
    const untraced = count.untraced();
    const least = Math.max(12, (image.width * image.height) / 60_000);
    const patches = patchesOf(untraced, least).slice(0, MOST_PATCHES);
    return { image: untraced, patches: patches.map(({ box }) => boxOfPoints(cornersOf(box).map(onPage))) };
  }

  /** The references whose ink is looked at: seen, under the work, and not measured by their edges. */
  private measuredFrom = (d: Drawing): Reference[] =>
    d.references.filter((r) => r.visible && !r.beside && r.target === 'ink' && this.pictures.has(r.id));

  private of(d: Drawing, r: Reference, reach: number): Counted {
    const image = inGrey(this.pictures.get(r.id)!);
    const parts = partsOf(d);
    const key = JSON.stringify([reach, placementKey(r), parts]);
    let counted = this.counts.get(r.id);
    if (counted?.key !== key || counted.image !== image) {
      const { inPicture, px } = placementOf(r, image);
      const boxes = parts.map(({ part }) => boxOfPoints(cornersOf(part).map(inPicture)));
      counted = { key, image, count: new CoverCount(image, reach / px, boxes), lines: new Map() };
      this.counts.set(r.id, counted);
    }
    return counted;
  }
}

/** Counts a line as it is now; without runs no longer at all. */
function countLine({ count, lines, image }: Counted, r: Reference, line: Pick<Line, 'id' | 'runs'>): void {
  const before = lines.get(line.id)?.segments ?? [];
  const segments = runsInPicture(line, placementOf(r, image).inPicture).flatMap((run) => run.cubics);
  for (let i = 0; i < Math.max(before.length, segments.length); i++) {
    const [was, is] = [before[i], segments[i]];
    if (was && is && was.every((p, k) => p.x === is[k].x && p.y === is[k].y)) continue;
    count.set(`${line.id}:${i}`, is ? [{ cubics: [is], closed: false }] : []);
  }
  if (segments.length > 0) lines.set(line.id, { runs: line.runs, segments });
  else lines.delete(line.id);
}

const partsOf = (d: Drawing): { sheet: string; part: Box }[] =>
  d.sheets.flatMap((s) => (s.part ? [{ sheet: s.id, part: s.part }] : []));

const cornersOf = (b: Box) => [b.minX, b.maxX].flatMap((x) => [b.minY, b.maxY].map((y) => ({ x, y })));
