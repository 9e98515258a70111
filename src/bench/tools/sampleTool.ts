import { colourOf } from '@/core/scene/ink';
import { opaque, rgbColour } from '@/core/colour/colour';
import { areaNear } from '@/core/flats/regions';
import { boundsOf, flatAt } from '@/core/edits/flats';
import { runsOfArea } from '@/core/edits/placedArea';
import { stackAt } from '@/core/edits/stackAt';
import { holdsPlace, pageToShares } from '@/core/drawing/placement';
import type { Drawing, Flat, Line, Point, Reference } from '@/core';
import { nanoid } from 'nanoid';
import { movesPicture } from '@/core/raster/correction';
import type { Area } from '@/core/flats/arrangement';
import { paintOf } from '../commands/colours';
import type { Bench } from '../state/store';
import { paintSampled } from '../canvas/sampleMarks';
import { addSwatches } from '@/core/edits/palette';
import { setFill } from '@/core/edits/fills';
import { styleLines } from '@/core/edits/lines';
import { nearestOnLine } from '@/core/drawing/run';
import { rgbOf } from '@/core/colour/oklab';
import { outlinesOn } from '../state/beneath';
import { correct, sourceOf } from '../state/corrections';
import { chosenIds } from '../state/chosen';
import { preferences, prefer, preferIn } from '../state/preferences';
import { toScreen, type View } from '../state/view';
import { PointedTool } from './pointedTool';
import { PATCH, readPatch, type ReadPatch } from './tonesTool';
import { CLICK, LINE_GRIP, type HandEvent, type Hint, type PointerShape, type Tool, type ToolContext } from './tool';

/** Reads the mean of a box of a picture, given by shares of its sides; null where that lies outside. */
export type ReadMean = (bitmap: ImageBitmap, from: Point, to: Point) => string | null;

const SIDE = 48;
/** A press takes the mean of so many pixels each way, so that grain does not count. */
const AROUND = 1;
const KEPT = 8;

const readMean: ReadMean = (bitmap, a, b) => {
  const [left, right] = [Math.max(0, Math.min(a.x, b.x)), Math.min(1, Math.max(a.x, b.x))];
  const [top, bottom] = [Math.max(0, Math.min(a.y, b.y)), Math.min(1, Math.max(a.y, b.y))];
  const [w, h] = [(right - left) * bitmap.width, (bottom - top) * bitmap.height];
  if (!(w > 0 && h > 0)) return null;
  const ctx = new OffscreenCanvas(SIDE, SIDE).getContext('2d', { willReadFrequently: true })!;
  ctx.imageSmoothingQuality = 'high';
  ctx.drawImage(bitmap, left * bitmap.width, top * bitmap.height, w, h, 0, 0, SIDE, SIDE);
  return meanOf(ctx.getImageData(0, 0, SIDE, SIDE), 0, 0, SIDE, SIDE);
};

function meanOf({ data, width }: ImageData, x0: number, y0: number, x1: number, y1: number): string {
  const sum = [0, 0, 0];
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++) for (let c = 0; c < 3; c++) sum[c] += data[4 * (y * width + x) + c];
  const n = (x1 - x0) * (y1 - y0);
  return rgbColour(sum[0] / n, sum[1] / n, sum[2] / n);
}

/** Colours taken from the picture (a place, or the mean of a box that is dragged), or with Alt from a flat. */
export class SampleTool extends PointedTool implements Tool {
  private from: HandEvent | null = null;

  constructor(
    context: ToolContext,
    private readonly patch: ReadPatch = readPatch,
    private readonly mean: ReadMean = readMean,
  ) {
    super(context);
  }

  press(e: HandEvent): void {
    this.at = this.from = e;
    this.context.repaint();
  }

  move(e: HandEvent): void {
    this.hover(e);
  }

  release(e: HandEvent): void {
    const { from } = this;
    this.from = null;
    this.at = e;
    const colour = from && this.sampled(from, e);
    if (colour) keepSample(this.bench, colour);
    else if (from && !e.alt && isOfArea(from, e)) void this.takeArea(e.page);
    else if (from)
      this.bench.tell(e.alt ? 'There is no flat or line here.' : 'There is no picture here to take a colour from.');
    this.context.repaint();
  }

  /** The uppermost picture that is seen at a place. */
  private pictureAt(p: Point): Reference | undefined {
    const { drawing } = this.bench.getState();
    return drawing.references.findLast((r) => r.visible && holdsPlace(r, p));
  }

  private sampled(from: HandEvent, to: HandEvent): string | null {
    const { drawing } = this.bench.getState();
    if (to.alt) {
      const [top] = stackAt(drawing, to.page, LINE_GRIP * this.context.unit());
      return top && top.item.kind !== 'picture' ? opaque(colourOfItem(drawing, top.item, to.page)) : null;
    }
    if (isOfArea(from, to)) return null;
    const r = this.pictureAt(from.page);
    const bitmap = r && this.context.picture(seenAs(r));
    if (!r || !bitmap) return null;
    if (isBox(from, to)) return this.mean(bitmap, pageToShares(r, from.page), pageToShares(r, to.page));
    const seen = this.patch(bitmap, pageToShares(r, to.page));
    const middle = PATCH >> 1;
    return seen && meanOf(seen, middle - AROUND, middle - AROUND, middle + AROUND + 1, middle + AROUND + 1);
  }

  /** Takes the mean of the flat, or of the area between lines, in the picture, or the colour that most of it has. */
  private async takeArea(p: Point): Promise<void> {
    const { drawing } = this.bench.getState();
    const { gap } = preferences.getState().pour;
    const { of } = preferences.getState().sample;
    const area = flatAt(drawing, p)?.runs ?? runsOrNull(areaNear(boundsOf(drawing), p, { gap }));
    const r = this.pictureAt(p);
    if (!area || !r) return this.bench.tell(r ? 'Nothing bounds this place.' : 'There is no picture here.');
    try {
      const seen = seenAs(r);
      const [found] = await correct.areas(sourceOf(seen), seen.corrections, [outlinesOn(seen, area)]);
      if (found) keepSample(this.bench, rgbColour(...(of === 'mean' ? found.mean : rgbOf(found.lab))));
    } catch {
      this.bench.tell('The picture could not be read.', undefined, 'warning');
    }
  }

  key = (): boolean => false;

  cancel(): void {
    this.from = null;
    this.context.repaint();
  }

  finish(): void {
    this.cancel();
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const { at, from } = this;
    if (!at) return;
    const colour = this.sampled(from ?? at, at);
    if (!colour) return;
    const box = from && isBox(from, at) ? ([toScreen(view, from.page), at.screen] as const) : null;
    const r = at.alt || box ? undefined : this.pictureAt(at.page);
    const bitmap = r && this.context.picture(seenAs(r));
    paintSampled(ctx, at.screen, colour, bitmap ? this.patch(bitmap, pageToShares(r, at.page)) : null, box);
  }

  pointer = (): PointerShape => 'shape';

  hints(): Hint[] {
    return [
      { keys: 'click', what: 'take the colour of the picture here, to pour it' },
      { keys: 'drag', what: 'a box: take its mean' },
      { keys: 'Alt click', what: 'take the colour of a line or a flat' },
    ];
  }
}

const isBox = (a: HandEvent, b: HandEvent): boolean =>
  Math.min(Math.abs(a.screen.x - b.screen.x), Math.abs(a.screen.y - b.screen.y)) > CLICK;

/** Whether the colour of an area is asked for, by a press. */
const isOfArea = (a: HandEvent, b: HandEvent): boolean => preferences.getState().sample.of !== 'place' && !isBox(a, b);

/** A reference as it is sampled: with its corrections, or as it came but for what lays it straight. */
const seenAs = (r: Reference): Reference =>
  preferences.getState().sample.corrected
    ? r
    : { ...r, corrections: r.corrections.filter((c) => movesPicture(c.kind)), tint: null };

const runsOrNull = (area: Area | null) => area && runsOfArea(area);

/** The colour that a line or a flat has at a place: of a line that of its stroke, but where only its fill lies there. */
function colourOfItem(d: Drawing, item: Line | Flat, p: Point): string {
  if (item.kind === 'flat') return colourOf(d, item.fill);
  const { fill, stroke, width } = item.style;
  const nearest = nearestOnLine(item, p);
  const isOnStroke =
    width > 0 && nearest !== null && nearest !== undefined && nearest.distance <= Math.max(2, width / 2);
  return colourOf(d, fill && !isOnStroke ? fill : stroke, item);
}

/** Takes a colour for what it is wanted for, and keeps it with those taken last. */
function keepSample(bench: Bench, colour: string): void {
  prefer({ samples: [colour, ...preferences.getState().samples.filter((c) => c !== colour)].slice(0, KEPT) });
  const { drawing, lines } = bench.getState();
  const { to } = preferences.getState().sample;
  const chosen = chosenIds(bench.getState());
  if (to === 'swatch') {
    const isThere = drawing.palette?.some((s) => s.colour === colour);
    if (!isThere) bench.commit(addSwatches(drawing, [{ colour }], () => nanoid(10)));
  }
  if ((to === 'strokes' || to === 'fills') && chosen.length > 0) {
    const paint = paintOf(bench, colour);
    bench.commit(
      to === 'fills' ? setFill(drawing, chosen, paint) : styleLines(drawing, lines, { stroke: paint }, 'Colour'),
    );
    return;
  }
  preferIn('pour', { colour });
}
