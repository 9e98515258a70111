import { outlineHolds } from '@/core/drawing/outline';
import { nanoid } from 'nanoid';
import type { Point } from '@/core';
import { edit as editOf, type Edit } from '@/core/change/edit';
import { boundsOf, flatAt, laid, paintFlats, removeFlats, sheetOfFlats } from '@/core/edits/flats';
import { placedArea, type PlacedArea } from '@/core/edits/placedArea';
import type { Area, Closing } from '@/core/flats/arrangement';
import { withInner } from '@/core/edits/innerOutlines';
import { NearAreas, type Bound } from '@/core/flats/regions';
import { isSamePaint } from '@/core/drawing/paint';
import { paintArea, paintClosing, paintGap } from '../canvas/areaMarks';
import { paintOf } from '../commands/colours';
import { pourAllAreas } from '../commands/flats';
import { sheetToDraw } from '../commands/sheetToDraw';
import { withoutSheets } from '../state/areas';
import { preferences } from '../state/preferences';
import type { View } from '../state/view';
import { keyOnFlats, paintChosenFlats } from './chosenFlats';
import { PointedTool } from './pointedTool';
import type { HandEvent, Hint, PointerShape, Tool } from './tool';

/** Under a moving hand areas are looked for among no more runs than this: a press looks among all. */
const MOST = 600;

/** What a press or a drag has poured so far. */
type Poured = { areas: PlacedArea[]; painted: Set<string> };

/** Areas that lines bound are filled: pressed one by one, or all that the hand is drawn across. */
export class PourTool extends PointedTool implements Tool {
  private areas: { bounds: readonly Bound[]; gap: number; near: NearAreas } | null = null;
  private readonly placed = new WeakMap<Area, PlacedArea>();
  private poured: Poured | null = null;

  press(e: HandEvent): void {
    this.at = e;
    const { drawing } = this.bench.getState();
    const sheet = sheetOfFlats(drawing);
    if (sheet && !sheetToDraw(this.bench, sheet.id, 'nothing is poured on it')) return;
    const there = flatAt(drawing, e.page);
    if (e.alt) {
      if (there) this.bench.commit(removeFlats(drawing, [there.id]));
      return;
    }
    this.poured = { areas: [], painted: new Set() };
    this.take(e.page, Infinity);
    if (there) this.bench.chooseFlats([there.id]);
    else if (this.poured.areas.length === 0) this.tellOpen();
  }

  move(e: HandEvent): void {
    this.at = e;
    for (const { page } of e.trail) this.take(page, MOST);
    this.context.repaint();
  }

  release(): void {
    const { poured } = this;
    this.poured = null;
    if (!poured || (poured.areas.length === 0 && poured.painted.size === 0)) return;
    const { edit, first } = this.editOf(poured);
    this.bench.commit(edit);
    if (first) this.bench.chooseFlats([first]);
  }

  /** What lies under the hand is poured as well. */
  private take(p: Point, most: number): void {
    const { poured } = this;
    if (!poured) return;
    const { drawing } = this.bench.getState();
    const there = flatAt(drawing, p);
    if (there) {
      if (
        isSamePaint(there.fill, paintOf(this.bench, preferences.getState().pour.colour)) ||
        poured.painted.has(there.id)
      )
        return;
      poured.painted.add(there.id);
    } else {
      const isPoured = (at: Point): boolean => poured.areas.some((x) => outlineHolds(x, at));
      const { area } = isPoured(p) ? { area: null } : this.look(p, most);
      // A place on the line between two is in neither: what lies well within tells.
      if (!area || isPoured(area.at)) return;
      const placed = outlineHolds(area, p) ? { ...area, at: p } : area;
      const { isInner } = preferences.getState().pour;
      const without = withoutSheets(this.bench.getState());
      poured.areas.push(...(isInner ? withInner(drawing, [placed], without) : [placed]));
    }
    this.bench.show(this.editOf(poured).edit);
  }

  private editOf({ areas, painted }: Poured): { edit: Edit; first: string | null } {
    const { drawing } = this.bench.getState();
    const { colour, gap } = preferences.getState().pour;
    const fill = paintOf(this.bench, colour);
    const paint = paintFlats(drawing, painted, fill);
    if (areas.length === 0) return { edit: paint, first: null };
    const label = areas.length === 1 ? 'Pour' : `Pour ${areas.length} areas`;
    const made = laid(
      drawing,
      areas,
      { fill, gap, without: withoutSheets(this.bench.getState()), freshId: () => nanoid(12) },
      label,
    );
    return { edit: editOf(label, made.edit.steps, paint.steps), first: made.flat };
  }

  private tellOpen(): void {
    const { gap } = preferences.getState().pour;
    this.bench.tell(
      gap > 0
        ? 'Nothing bounds this place: its lines leave a gap wider than is closed, or there are none.'
        : 'Nothing bounds this place. Gaps are not closed: set how wide they may be.',
    );
  }

  /** What lies about a place. What was found before counts for as long as the lines are the same. */
  private look(p: Point, most: number): { area: PlacedArea | null; closings: readonly Closing[] } {
    const bounds = boundsOf(this.bench.getState().drawing, withoutSheets(this.bench.getState()));
    const { gap } = preferences.getState().pour;
    const known = this.areas;
    const isSame = known?.gap === gap && known.bounds.length === bounds.length;
    if (!isSame || !bounds.every((b, i) => b === known.bounds[i]))
      this.areas = { bounds, gap, near: new NearAreas(bounds, gap) };
    const { area, closings } = this.areas!.near.at(p, most);
    let placed = area && this.placed.get(area);
    if (area && !placed) this.placed.set(area, (placed = placedArea(area)));
    return { area: placed ?? null, closings };
  }

  key(key: string): boolean {
    if (keyOnFlats(this.bench, key)) return true;
    if (key !== 'Enter') return false;
    void pourAllAreas(this.bench);
    return true;
  }

  cancel(): void {
    this.poured = null;
    this.bench.show(null);
  }

  finish(): void {
    this.cancel();
    this.bench.setState({ flats: new Set() });
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const { at } = this;
    paintChosenFlats(ctx, this.bench, view);
    if (!at) return;
    const { drawing, reading } = this.bench.getState();
    if (reading) return;
    const { colour, gap } = preferences.getState().pour;
    const { area, closings } = this.look(at.page, MOST);
    for (const closing of closings) paintClosing(ctx, view, closing);
    if (gap > 0) paintGap(ctx, at.screen, gap * view.scale);
    if (area && !this.poured && !flatAt(drawing, at.page)) paintArea(ctx, view, area.runs, colour, false);
  }

  pointer = (): PointerShape => 'shape';

  hints(): Hint[] {
    const there = this.at && flatAt(this.bench.getState().drawing, this.at.page);
    return [
      { keys: 'click', what: there ? 'paint this flat in the colour in hand' : 'fill the area' },
      { keys: 'drag', what: 'across areas: fill each' },
      { keys: 'Alt click', what: 'take a flat away' },
      { keys: 'Enter', what: 'fill all areas' },
    ];
  }
}
