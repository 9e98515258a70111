import type { Drawing, Line, Reference } from '../drawing/schema';
import { boxOfPoints } from '../geometry/box';
import { mapCubics, type Cubic } from '../geometry/cubic';
import type { Box } from '../geometry/point';
import { toBeTraced } from '../assist/inkRadius';
import type { Picture } from '../colour/picture';
import type { GrayImage } from '../raster/grayImage';
import { CoverCount } from './coverCount';
import { patchesOf } from './coverage';
import { curvesAlong, openStretches, type OpenStretch } from './openOutlines';
import { placementOf, runsInPicture } from '../drawing/beneath';
import { seenLines } from '../drawing/items';
import { placementKey, type Pictures } from './pictures';

/** How much of one reference's ink has a line, whole and by the drawing's parts (null: there is no ink in it). */
export type CoverFigures = {
  readonly reference: string;
  readonly covered: number;
  readonly parts: readonly { readonly sheet: string; readonly covered: number | null }[];
};

/** A piece of a reference that has no line, by its box, page units; of a photo's outline also what names it. */
export type OpenPatch = { readonly box: Box; readonly outline: string | null };

/** What of a reference has no line: the picture of it, black on white, and its pieces, the largest first. */
export type Untraced = { readonly image: GrayImage; readonly patches: readonly OpenPatch[] };

/** A piece of an outline is waved through by this, as notes are. */
const outlineKey = (r: Reference, { name }: OpenStretch): string => `outline ${r.picture.slice(0, 16)} ${name}`;

const MOST_PATCHES = 200;

/** A line as it is counted, segment by segment: of a line that moves only what differs is counted anew. */
type CountedLine = { runs: Line['runs']; segments: readonly Cubic[] };

type Counted = { key: string; image: Picture; count: CoverCount; lines: Map<string, CountedLine> };

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

  /** What of a reference has no line; null for one that is not measured from. */
  untraced(d: Drawing, id: string, reach: number): Untraced | null {
    const r = this.measuredFrom(d).find((x) => x.id === id);
    if (!r) return null;
    const { count, image } = this.of(d, r, reach);
    const { onPage } = placementOf(r, image);
    const untraced = count.untraced();
    const onSheet = (box: Box): Box => boxOfPoints(cornersOf(box).map(onPage));
    if (r.target === 'edge') {
      const stretches = this.stretches(d, r, reach).slice(0, MOST_PATCHES);
      const patches = stretches.map((s) => ({ box: onSheet(boxOfPoints(s.points)), outline: outlineKey(r, s) }));
      return { image: untraced, patches };
    }
    const least = Math.max(12, (image.width * image.height) / 60_000);
    const patches = patchesOf(untraced, least).slice(0, MOST_PATCHES);
    return { image: untraced, patches: patches.map(({ box }) => ({ box: onSheet(box), outline: null })) };
  }

  /** The stretches of a photo's outlines that have no line and were not waved through. */
  private stretches(d: Drawing, r: Reference, reach: number): OpenStretch[] {
    const { count, image } = this.of(d, r, reach);
    const waved = new Set(d.waved);
    return openStretches(image, count).filter((s) => !waved.has(outlineKey(r, s)));
  }

  /** Few curves along an open piece of an outline, page units; null where it is none any more. */
  outline(d: Drawing, id: string, key: string, reach: number): Cubic[] | null {
    const r = this.measuredFrom(d).find((x) => x.id === id);
    const stretch = r && this.stretches(d, r, reach).find((s) => outlineKey(r, s) === key);
    if (!r || !stretch) return null;
    const { image } = this.of(d, r, reach);
    const { onPage } = placementOf(r, image);
    return mapCubics(curvesAlong(image, stretch.points), onPage);
  }

  /** The references that are looked at: seen, and under the work. */
  private measuredFrom = (d: Drawing): Reference[] =>
    d.references.filter((r) => r.visible && !r.beside && this.pictures.has(r.id));

  private of(d: Drawing, r: Reference, reach: number): Counted {
    const image = this.pictures.get(r.id)!;
    const parts = partsOf(d);
    const key = JSON.stringify([reach, placementKey(r), parts]);
    let counted = this.counts.get(r.id);
    if (counted?.key !== key || counted.image !== image) {
      const { inPicture, px } = placementOf(r, image);
      const boxes = parts.map(({ part }) => boxOfPoints(cornersOf(part).map(inPicture)));
      counted = { key, image, count: new CoverCount(toBeTraced(image, r.target), reach / px, boxes), lines: new Map() };
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
