import { expose, transfer } from 'comlink';
import {
  applyChange,
  coverage,
  type Box,
  type Change,
  type Drawing,
  type GrayImage,
  type Line,
  type Run,
} from '@/core';
import { settledRuns, type SettleFigures } from '@/core/change/settleEdits';
import { coverageWithin, patchesOf } from '@/core/check/coverage';
import { findNotes } from '@/core/check/findNotes';
import {
  measureLine,
  placementOf,
  referenceBeneath,
  runsInPicture,
  type LineDistance,
} from '@/core/check/lineDistance';
import type { Note } from '@/core/check/note';
import { findLine } from '@/core/drawing/find';
import { thinnedRun, type ThinOptions } from '@/core/drawing/thin';
import { boxOfPoints } from '@/core/geometry/box';

/** What has been looked at, and what was found. Kept here so that only what changed is sent and made anew. */
let drawing: Drawing | null = null;
const pictures = new Map<string, { key: string; image: GrayImage }>();
const measured = new WeakMap<Line['runs'], { key: string; distance: LineDistance }>();

/** What the bench was told last, by the places measured. */
let told = new Map<string, Float32Array>();

/** A line in another shape. */
export type Reshaped = { id: string; runs: readonly Run[] };

/** What a reference's uncovered ink looks like, and where. */
export type CoverageFound = {
  reference: string;
  covered: number;
  parts: { sheet: string; covered: number | null }[];
  patches: Box[];
  wash: ImageBitmap | null;
};

const WASH = [188, 72, 44, 150] as const;
const MOST_PATCHES = 200;

function distanceOf(d: Drawing, line: Line, reach: number): LineDistance | null {
  const r = referenceBeneath(d, line);
  const picture = r && pictures.get(r.id);
  if (!r || !picture) return null;
  const key = JSON.stringify([picture.key, r.at, r.width, r.height, r.turn, r.flipX, r.flipY, r.target, reach]);
  const known = measured.get(line.runs);
  if (known?.key === key) return { ...known.distance, id: line.id };
  const distance = measureLine(line, r, picture.image, reach);
  measured.set(line.runs, { key, distance });
  return distance;
}

const checks = {
  load(next: Drawing): void {
    drawing = next;
    told = new Map();
  },

  change(change: Change): void {
    if (drawing) drawing = applyChange(drawing, change);
  },

  /** A reference's corrected picture in grey; null lets go of it. */
  picture(id: string, key: string, image: GrayImage | null): void {
    if (image) pictures.set(id, { key, image });
    else pictures.delete(id);
  },

  /** The lines of all visible sheets that can be measured, and of those the ones that are news. */
  distances(reach: number): { ids: string[]; fresh: LineDistance[] } {
    const d = drawing;
    if (!d) return { ids: [], fresh: [] };
    const all = d.sheets.filter((s) => s.visible).flatMap((s) => s.lines.flatMap((l) => distanceOf(d, l, reach) ?? []));
    const fresh = all.filter((x) => told.get(x.id) !== x.places);
    told = new Map(all.map((x) => [x.id, x.places]));
    return { ids: all.map((x) => x.id), fresh };
  },

  /** Lines as they are under the hand. */
  live(lines: Line[], reach: number): LineDistance[] {
    const d = drawing;
    return d ? lines.flatMap((l) => distanceOf(d, l, reach) ?? []) : [];
  },

  /** How much ink of one reference has a line, where it has none, and a wash over that. */
  coverage(id: string, reach: number): CoverageFound | null {
    const r = drawing?.references.find((x) => x.id === id);
    const picture = pictures.get(id);
    if (!drawing || !r || !picture) return null;
    const { image } = picture;
    const { inPicture, onPage, px } = placementOf(r, image);
    const lines = drawing.sheets.filter((s) => s.visible).flatMap((s) => s.lines);
    const runs = lines.flatMap((l) => runsInPicture(l, inPicture));
    const { covered, untraced } = coverage(runs, image, { reach: reach / px });
    const least = Math.max(12, (image.width * image.height) / 60_000);
    const corners = (b: Box) => [b.minX, b.maxX].flatMap((x) => [b.minY, b.maxY].map((y) => ({ x, y })));
    const found: CoverageFound = {
      reference: id,
      covered,
      parts: drawing.sheets.flatMap((s) =>
        s.part
          ? [{ sheet: s.id, covered: coverageWithin(image, untraced, boxOfPoints(corners(s.part).map(inPicture))) }]
          : [],
      ),
      patches: patchesOf(untraced, least)
        .slice(0, MOST_PATCHES)
        .map(({ box }) => boxOfPoints(corners(box).map(onPage))),
      wash: washOf(untraced),
    };
    return found.wash ? transfer(found, [found.wash]) : found;
  },

  notes: (): Note[] => (drawing ? findNotes(drawing) : []),

  /** Lines by their ids, settled onto the ink beneath them; only those that move. */
  settle(ids: string[], nodes: string[], figures: SettleFigures): Reshaped[] {
    const d = drawing;
    if (!d) return [];
    return ids.flatMap((id) => {
      const line = findLine(d, id)?.line;
      const r = line && referenceBeneath(d, line);
      const picture = r && pictures.get(r.id);
      if (!line || !r || !picture) return [];
      const own = nodes.filter((k) => k.startsWith(`${id}:`)).map((k) => k.slice(id.length + 1));
      const runs = settledRuns(line, r, picture.image, figures, nodes.length > 0 ? new Set(own) : undefined);
      return runs === line.runs ? [] : [{ id, runs }];
    });
  },

  /** Lines by their ids, with fewer nodes; only those that come out otherwise. */
  thin(ids: string[], options: ThinOptions): Reshaped[] {
    const d = drawing;
    if (!d) return [];
    return ids.flatMap((id) => {
      const line = findLine(d, id)?.line;
      if (!line) return [];
      const runs = line.runs.map((run) => thinnedRun(run, options));
      return runs.every((run, i) => run === line.runs[i]) ? [] : [{ id, runs }];
    });
  },
};

/** Untraced ink as a bitmap to be laid over the page; twice as fat, so that thin strokes are seen. */
function washOf({ width, height, data }: GrayImage): ImageBitmap | null {
  if (typeof OffscreenCanvas === 'undefined') return null;
  const canvas = new OffscreenCanvas(width, height);
  const ctx = canvas.getContext('2d')!;
  const pixels = ctx.createImageData(width, height);
  const into = new Uint32Array(pixels.data.buffer);
  const colour = (WASH[3] << 24) | (WASH[2] << 16) | (WASH[1] << 8) | WASH[0];
  for (let i = 0; i < data.length; i++) if (data[i] === 0) into[i] = colour;
  ctx.putImageData(pixels, 0, 0);
  return canvas.transferToImageBitmap();
}

export type CheckWorker = typeof checks;
expose(checks);
