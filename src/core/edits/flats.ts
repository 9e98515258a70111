import { counted, edit, sidesOf, type Edit } from '../change/edit';
import type { Step } from '../change/change';
import { findItem, placeOf, sheetOf } from '../drawing/find';
import type { Flat } from '../drawing/item';
import { boundingLines, flatsIn } from '../drawing/items';
import type { Paint } from '../drawing/paint';
import { outlineHolds, shownOutline } from '../drawing/outline';
import { shownCubics } from '../drawing/rounding';
import { firstStyle, freshSheet, type Drawing, type Line, type Run, type Sheet } from '../drawing/schema';
import { boxOfOutline, type Bound } from '../flats/regions';
import type { Point } from '../geometry/point';
import type { PlacedArea } from './placedArea';
import { tagColours } from './sheets';

/** The name of the sheet that flats are laid on, below all lines. */
export const FLATS = 'Flats';

const bounds = new WeakMap<Run, Bound>();

/** The sheets whose lines bound nothing that is poured now: those that are not seen. */
export const unseenSheets = (d: Drawing): string[] => d.sheets.flatMap((s) => (s.visible ? [] : [s.id]));

/** What bounds areas: the lines of all sheets but some, as they are drawn. */
export const boundsOf = (d: Drawing, without: readonly string[] = unseenSheets(d)): Bound[] =>
  d.sheets.filter((s) => !without.includes(s.id)).flatMap((s) => boundingLines(s.items).flatMap(boundsOfLine));

export const boundsOfLine = ({ runs }: Pick<Line, 'runs'>): Bound[] =>
  runs.flatMap((run) => {
    if (run.nodes.length < 2) return [];
    let bound = bounds.get(run);
    if (!bound) {
      const cubics = shownCubics(run);
      bounds.set(run, (bound = { run: { cubics, closed: run.closed }, box: boxOfOutline(cubics) }));
    }
    return [bound];
  });

/** All flats, the lowest first. */
export const allFlats = (d: Drawing): Flat[] => d.sheets.flatMap((s) => flatsIn(s.items));

/** All flats of the sheets that are seen, the lowest first. */
export const seenFlats = (d: Drawing): Flat[] => d.sheets.filter((s) => s.visible).flatMap((s) => flatsIn(s.items));

/** The uppermost flat at a place that is seen; null where there is none. */
export const flatAt = (d: Drawing, p: Point): Flat | null => seenFlats(d).findLast((f) => outlineHolds(f, p)) ?? null;

export type Pour = {
  readonly fill: Paint;
  /** Ends nearer to another line are led to it, page units. */
  readonly gap: number;
  /** The sheets whose lines bound nothing; those that are not seen, if none are told. */
  readonly without?: readonly string[];
  readonly freshId: () => string;
};

/** The sheet that flats are laid on: one that has some, or else is called so. */
export const sheetOfFlats = (d: Drawing): Sheet | undefined =>
  d.sheets.find((s) => flatsIn(s.items).length > 0) ?? d.sheets.find((s) => s.name === FLATS);

/** Flats laid in areas, on the sheet of flats, or a new one below all others. */
export function laid(
  d: Drawing,
  areas: readonly PlacedArea[],
  { fill, gap, without = unseenSheets(d), freshId }: Pour,
  label: string,
): { edit: Edit; flat: string } {
  const known = sheetOfFlats(d);
  const sheet = known ?? freshSheet(freshId(), FLATS, tagColours[5], firstStyle);
  const first: Step[] = known ? [] : [{ step: 'insertSheet', index: 0, sheet }];
  const items = areas.map(({ runs, at, inner }): Flat => ({
    kind: 'flat',
    id: freshId(),
    at,
    gap,
    runs,
    fill,
    ...(without.length > 0 && { without }),
    ...(inner && { inner }),
  }));
  const steps = items.map((item, i): Step => ({
    step: 'insertItem',
    at: { sheet: sheet.id, index: sheet.items.length + i },
    item,
  }));
  return { edit: edit(label, first, steps), flat: items[0].id };
}

/** Those of some areas that have no flat. */
export function freeAreas(d: Drawing, areas: readonly PlacedArea[]): PlacedArea[] {
  const flats = seenFlats(d).filter((f) => !f.open);
  return areas.filter((area) => !flats.some((f) => outlineHolds(area, f.at)));
}

/** Flats laid in all areas that have none. */
export function pourAll(d: Drawing, places: readonly PlacedArea[], how: Pour): { edit: Edit; count: number } {
  const free = freeAreas(d, places);
  if (free.length === 0) return { edit: edit('Pour'), count: 0 };
  return { edit: laid(d, free, how, counted('Pour', free.length, 'area')).edit, count: free.length };
}

/** Flats by their ids, with where they are. */
const found = (d: Drawing, ids: Iterable<string>) =>
  [...ids].flatMap((id) => {
    const place = findItem(d, id);
    return place?.item.kind === 'flat' ? [{ place, flat: place.item }] : [];
  });

/** Flats painted anew. */
export const paintFlats = (d: Drawing, ids: Iterable<string>, fill: Paint): Edit =>
  edit('Paint', paintSteps(d, new Map(Array.from(ids, (id) => [id, fill]))));

/** Steps by which flats are painted, each by its id. */
export const paintSteps = (d: Drawing, fills: ReadonlyMap<string, Paint>): Step[] =>
  found(d, fills.keys()).flatMap(({ place, flat }): Step[] => {
    const sides = sidesOf<Pick<Flat, 'fill'>>(flat, { fill: fills.get(flat.id)! });
    return sides ? [{ step: 'setFlat', sheet: place.sheet.id, id: flat.id, ...sides }] : [];
  });

/** Flats taken away. */
export function removeFlats(d: Drawing, ids: Iterable<string>): Edit {
  const places = found(d, ids).sort((a, b) => b.place.index - a.place.index);
  return edit(
    places.length === 1 ? 'Take flat away' : `Take ${places.length} flats away`,
    places.map(({ place, flat }): Step => ({ step: 'removeItem', at: placeOf(place), item: flat })),
  );
}

/** Flats made ordinary closed lines with their fills, which follow nothing any more, where they lay; and these lines' ids. */
export function flatsIntoLines(
  d: Drawing,
  ids: Iterable<string>,
  freshId: () => string,
): { edit: Edit; lines: string[] } {
  const lines: string[] = [];
  const steps = found(d, ids).flatMap(({ place, flat }): Step[] => {
    const { stroke, cap, join, width } = sheetOf(d, place.sheet.id)!.style;
    const id = freshId();
    lines.push(id);
    const line: Line = { id, runs: shownOutline(flat), style: { stroke, cap, join, width, fill: flat.fill } };
    return [
      { step: 'removeItem', at: placeOf(place), item: flat },
      { step: 'insertItem', at: placeOf(place), item: line },
    ];
  });
  return { edit: edit(lines.length === 1 ? 'Into a line' : `${lines.length} flats into lines`, steps), lines };
}
