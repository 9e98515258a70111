import { nanoid } from 'nanoid';
import { fitCurve, type Point, type Run } from '@/core';
import { runFromCubics } from '@/core/drawing/fromCubics';
import { cornerAt } from '@/core/drawing/run';
import { findItem } from '@/core/drawing/find';
import { shapeAt } from '@/core/edits/keepInside';
import { fillOf, layShades } from '@/core/edits/shades';
import { distance } from '@/core/geometry/point';
import { sheetToDraw } from '../commands/sheetToDraw';
import { paintArea } from '../canvas/areaMarks';
import { preferences, preferIn } from '../state/preferences';
import type { View } from '../state/view';
import { PointedTool } from './pointedTool';
import { CLICK, type HandEvent, type Hint, type PointerShape, type Tool } from './tool';

/** Places nearer to each other than this do not count, CSS px; nor how far a curve may leave the hand. */
const APART = 2;
const STRAY = 1.6;
/** With the keys, the shade is by one step more or less, up to so many. */
const MOST_BY = 4;

/** Shapes of shade and light drawn freely into a filled shape, and kept inside of it. */
export class ShadeTool extends PointedTool implements Tool {
  private drawn: { shape: string; places: Point[] } | null = null;

  press(e: HandEvent): void {
    this.at = e;
    const shape = this.shapeAt(e.page);
    if (!shape) {
      this.bench.tell('There is no filled shape here to shade in. Pour a flat first, or fill a closed line.');
      return;
    }
    const { sheet } = findItem(this.bench.getState().drawing, shape)!;
    if (!sheetToDraw(this.bench, sheet.id, 'nothing is shaded on it')) return;
    this.drawn = { shape, places: [e.page] };
  }

  /** The filled shape beneath a place. */
  private shapeAt(p: Point): string | null {
    const { drawing } = this.bench.getState();
    const id = shapeAt(drawing, p);
    const item = id === null ? undefined : findItem(drawing, id)?.item;
    return item && fillOf(item) ? item.id : null;
  }

  move(e: HandEvent): void {
    this.at = e;
    const { drawn } = this;
    if (!drawn) return;
    const apart = APART * this.context.unit();
    for (const { page } of e.trail) if (distance(page, drawn.places.at(-1)!) >= apart) drawn.places.push(page);
    if (drawn.places.length < 3) return;
    this.bench.show(this.editOf(drawn.shape, { closed: true, nodes: drawn.places.map(cornerAt) }));
  }

  release(): void {
    const { drawn } = this;
    this.drawn = null;
    if (!drawn) return;
    const { places, shape } = drawn;
    const unit = this.context.unit();
    const reach = Math.max(...places.map((p) => distance(p, places[0])));
    if (places.length < 4 || reach < 2 * CLICK * unit) {
      this.bench.show(null);
      if (findItem(this.bench.getState().drawing, shape)?.item.kind === 'flat') this.bench.chooseFlats([shape]);
      else this.bench.choose([shape]);
      return;
    }
    const cubics = fitCurve(places, { tolerance: STRAY * unit, closed: true });
    this.bench.commit(this.editOf(shape, runFromCubics(cubics, true)));
  }

  private editOf(shape: string, run: Run) {
    const { light, steps, by, blend, opacity } = preferences.getState().shade;
    const shades = [{ runs: [run], by: (light ? -by : by) / steps }];
    return layShades(this.bench.getState().drawing, shape, shades, { blend, opacity }, () => nanoid(12));
  }

  key(key: string): boolean {
    const { by } = preferences.getState().shade;
    if (key === 'ArrowUp' || key === 'ArrowDown') {
      preferIn('shade', { by: Math.min(MOST_BY, Math.max(1, by + (key === 'ArrowUp' ? 1 : -1))) });
      return true;
    }
    if (key !== 'swap') return false;
    preferIn('shade', { light: !preferences.getState().shade.light });
    return true;
  }

  cancel(): void {
    this.drawn = null;
    this.bench.show(null);
  }

  finish(): void {
    if (this.drawn) this.cancel();
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const at = this.drawn?.places[0] ?? this.at?.page;
    const { drawing } = this.bench.getState();
    const shape = this.drawn?.shape ?? (at && this.shapeAt(at));
    const item = shape ? findItem(drawing, shape)?.item : undefined;
    if (item && 'runs' in item) paintArea(ctx, view, item.runs, null, false);
  }

  pointer = (): PointerShape => 'pencil';

  hints(): Hint[] {
    const { light } = preferences.getState().shade;
    return [
      { keys: 'drag', what: `around a ${light ? 'light' : 'shade'}: it is kept inside of the shape where it begins` },
      { keys: '↑ ↓', what: 'by a step of tone more or less' },
      { keys: 'click', what: 'choose a flat, to pull its tones from the picture' },
    ];
  }
}
