import { outlineBox, outlineHolds } from '../drawing/outline';
import type Flatbush from 'flatbush';
import type { Step } from '../change/change';
import { sidesOf } from '../change/edit';
import { findItem, placeOf } from '../drawing/find';
import { lineOnGrid, pointOnGrid } from '../drawing/grid';
import type { Flat } from '../drawing/item';
import { cubicsOf, skeletonBox } from '../drawing/run';
import type { Drawing } from '../drawing/schema';
import { arrangementWithin, boxOfBounds, boxOfOutline, type Bound } from '../flats/regions';
import type { Area, Arrangement } from '../flats/arrangement';
import { boxArea, emptyBox, growBox, holdsBox, joinBoxes } from '../geometry/box';
import { cubicArea, evaluate } from '../geometry/cubic';
import { indexOfBoxes } from '../geometry/boxIndex';
import { add, distance, scale, type Box, type Point } from '../geometry/point';
import { carriedFlats } from './carriedFlats';
import { movedBy, placesIn } from './flatPlaces';
import { movedLines, type Moved } from './movedLines';
import { allFlats, boundsOf } from './flats';
import { runsOfArea } from './placedArea';

/** Places that stand for a flat: so many across its box, of those that lie in it; of very many flats fewer. */
const ACROSS = { few: 7, many: 5, from: 100 };
/** A part of a flat that has been divided off keeps its colour where it has this share of the places, and two at least. */
const PART = { share: 0.08, least: 2 };
const WIDER = 0.6;
/** So much of a flat is found before what lies further around is left out. */
const MOSTLY = 0.9;
/** An area so many times as large as the flat was is no longer its own: its lines have opened to another. */
const OPENED = 3;

/**
 * What flats are to be so as to follow what lines have become: each follows the lines that bound it. When they no longer do
 * it keeps its outline and is marked as open; divided, each part keeps the colour; joined, the larger one's.
 */
export function following(before: Drawing, after: Drawing, freshId: () => string): Step[] {
  const moved = movedLines(before, after);
  if (moved.length === 0) return [];
  const places = moved.flatMap(({ sheets, boxes }) => boxes.map((box) => ({ box, sheets })));
  if (places.length === 0) return [];
  const index = indexOfBoxes(places.map((p) => p.box));
  const all = allFlats(after);
  const touched = all.filter((f) => {
    const { minX, minY, maxX, maxY } = growBox(outlineBox(f), Math.max(1, f.gap));
    return index.collides(minX, minY, maxX, maxY, (i) => places[i].sheets.some((s) => !f.without?.includes(s)));
  });
  if (touched.length === 0) return [];
  // What has gone along in the edit itself, with a group that holds it, is where it belongs already.
  const were = new Map(allFlats(before).map((f) => [f.id, f.runs]));
  const isLed = (f: Flat): boolean => were.get(f.id) === f.runs;
  const carried = carriedFlats(after, moved, touched.filter(isLed));
  const along = new Set(carried?.flats);
  const rest = touched.filter((f) => !along.has(f));
  const steps = rest.length > 0 ? new Following(after, moved, all, rest, isLed, freshId).steps() : [];
  if (!carried || (carried.by.x === 0 && carried.by.y === 0)) return steps;
  return [{ step: 'translate', ids: carried.flats.map((f) => f.id), by: carried.by }, ...steps];
}

type Sought = { flat: Flat; places: Point[]; at: Point; size: number };

class Following {
  /** What bounds flats, and the areas around all that are touched: by what does not bound them, and by the gap. */
  private readonly bounds = new Map<string, Bound[]>();
  private readonly first = new Map<string, Arrangement>();
  /** The box of all places that are looked at. */
  private around: Box = emptyBox;
  /** Where the lines that have moved were. */
  private readonly before: Flatbush;

  constructor(
    private readonly d: Drawing,
    private readonly moved: readonly Moved[],
    private readonly all: readonly Flat[],
    private readonly touched: readonly Flat[],
    /** Whether a flat is to be led along with its lines. */
    private readonly isLed: (f: Flat) => boolean,
    private readonly freshId: () => string,
  ) {
    this.before = indexOfBoxes(moved.map(({ was, is }) => skeletonBox(was ?? is!)));
  }

  steps(): Step[] {
    const steps: Step[] = [];
    const claimed = new Map<string, Area>();
    const touched = new Set(this.touched);
    const untouched = this.all.filter((f) => !touched.has(f));
    const isTaken = (area: Area): boolean => claimed.has(keyOf(area)) || untouched.some((f) => holdsPlace(area, f.at));
    // The larger ones first: of two that have become one the larger stays.
    const sought = this.touched.map((f) => this.seek(f)).sort((a, b) => b.size - a.size);
    const own = this.touched.map(outlineBox).reduce(joinBoxes);
    // What has changed, where it is no larger than the flats are.
    const changed = this.moved.flatMap(({ boxes }) => boxes.filter((b) => boxArea(b) < 2 * boxArea(own)));
    this.around = [own, ...changed, boxOfPlaces(sought.flatMap((s) => s.places))].reduce(joinBoxes);
    const parts: { flat: Flat; area: Area; at: Point }[] = [];
    for (const { flat, places, at, size } of sought) {
      const votes = this.votesOf(flat, places, size);
      const [first, ...others] = votes;
      const outside = places.length - votes.reduce((n, v) => n + v.places.length, 0);
      const isOpen = !first || outside > first.places.length;
      // What a larger one has become holds it: the two are one.
      if (isOpen ? [...claimed.values()].some((a) => holdsPlace(a, at)) : claimed.has(keyOf(first.area))) {
        steps.push({ step: 'removeItem', at: placeOf(findItem(this.d, flat.id)!), item: flat });
        continue;
      }
      if (isOpen) {
        steps.push(...this.set(flat, { open: true }));
        continue;
      }
      claimed.set(keyOf(first.area), first.area);
      const inside = first.places.includes(at) ? at : nearest(first.places, at);
      steps.push(...this.set(flat, { runs: runsOfArea(first.area), at: inside, open: false }));
      for (const { area, places: own } of others)
        if (own.length >= Math.max(PART.least, PART.share * places.length))
          parts.push({ flat, area, at: nearest(own, centreOf(own)) });
    }
    return [
      ...inOrder(steps),
      ...this.laidParts(
        parts.filter(({ area }) => !isTaken(area)),
        steps,
      ),
    ];
  }

  /** Parts that were divided off, each above what it was part of. */
  private laidParts(parts: { flat: Flat; area: Area; at: Point }[], done: readonly Step[]): Step[] {
    const removed = done.filter((s) => s.step === 'removeItem');
    const laid = new Set<string>();
    return parts.flatMap(({ flat, area, at }): Step[] => {
      const key = keyOf(area);
      if (laid.has(key)) return [];
      laid.add(key);
      const place = placeOf(findItem(this.d, flat.id)!);
      const below = removed.filter(
        (s) => s.at.sheet === place.sheet && s.at.group === place.group && s.at.index < place.index,
      ).length;
      const item: Flat = { ...flat, id: this.freshId(), at, runs: runsOfArea(area) };
      delete (item as { open?: boolean }).open;
      return [{ step: 'insertItem', at: { ...place, index: place.index - below }, item }];
    });
  }

  private set(flat: Flat, wanted: Partial<Flat>): Step[] {
    const { sheet } = findItem(this.d, flat.id)!;
    const onGrid = {
      ...wanted,
      ...(wanted.at && { at: pointOnGrid(wanted.at) }),
      ...(wanted.runs && { runs: lineOnGrid({ runs: wanted.runs }).runs }),
    };
    const sides = sidesOf<Flat>({ open: false, ...flat }, onGrid);
    return sides ? [{ step: 'setFlat', sheet: sheet.id, id: flat.id, ...sides }] : [];
  }

  /** The places that stand for a flat, led along with its lines. */
  private seek(flat: Flat): Sought {
    const controls = this.isLed(flat) ? this.controlsOf(flat) : [];
    const lead = (p: Point): Point => {
      let [sum, x, y] = [0, 0, 0];
      for (const { from, by } of controls) {
        const w = 1 / ((from.x - p.x) ** 2 + (from.y - p.y) ** 2 + 1e-6);
        sum += w;
        x += w * by.x;
        y += w * by.y;
      }
      return sum > 0 ? add(p, { x: x / sum, y: y / sum }) : p;
    };
    const at = lead(flat.at);
    const across = this.touched.length < ACROSS.from ? ACROSS.few : ACROSS.many;
    return { flat, at, size: sizeOf(flat), places: [at, ...placesIn(flat, across).map(lead)] };
  }

  /** Places of a flat's outline, and how far the lines that they lie on have moved there. */
  private controlsOf(flat: Flat): { from: Point; by: Point }[] {
    const { minX, minY, maxX, maxY } = growBox(outlineBox(flat), 1);
    const near = this.before.search(minX, minY, maxX, maxY).map((i) => this.moved[i]);
    return flat.runs.flatMap(cubicsOf).flatMap((c) =>
      [0, 0.5].map((t) => {
        const from = evaluate(c, t);
        return { from, by: movedBy(near, from) };
      }),
    );
  }

  private boundsOf({ without = [] }: Flat): Bound[] {
    const key = without.join(' ');
    let found = this.bounds.get(key);
    if (!found) this.bounds.set(key, (found = boundsOf(this.d, without)));
    return found;
  }

  private within = (flat: Flat, window: Box): Arrangement =>
    arrangementWithin(this.boundsOf(flat), window, { gap: flat.gap });

  /** The areas around all flats that are touched, for those that the same bounds. */
  private together(flat: Flat): Arrangement {
    const key = `${flat.gap} ${flat.without?.join(' ')}`;
    let found = this.first.get(key);
    if (!found) this.first.set(key, (found = this.within(flat, growBox(this.around, 8 + flat.gap))));
    return found;
  }

  /** The areas that a flat's places lie in, the one with the most first. */
  private votesOf(flat: Flat, places: readonly Point[], size: number): { area: Area; places: Point[] }[] {
    const limit = boxOfBounds(this.boundsOf(flat));
    const box = boxOfPlaces(places);
    const most = OPENED * Math.max(box.maxX - box.minX, box.maxY - box.minY) + 100;
    let window = growBox(this.around, 8 + flat.gap);
    for (let round = 0; ; round++) {
      // All together at first: most flats that hang on a node share their lines.
      const arrangement = round === 0 ? this.together(flat) : this.within(flat, window);
      const votes = new Map<Area, Point[]>();
      for (const p of places) {
        const area = arrangement.areaAt(p);
        if (area && area.size <= OPENED * size) votes.set(area, [...(votes.get(area) ?? []), p]);
      }
      const isAll = holdsBox(window, limit) || (round > 0 && window.maxX - window.minX > most);
      if (isAll || [...votes.keys()].every((a) => holdsBox(window, boxOfOutline(a.loops[0])))) {
        const found = [...votes].map(([area, own]) => ({ area, places: own }));
        if (isAll || found.reduce((n, v) => n + v.places.length, 0) > MOSTLY * places.length)
          return found.sort((a, b) => b.places.length - a.places.length);
      }
      if (round === 0) window = growBox(box, 8 + flat.gap);
      window = growBox(window, WIDER * Math.max(window.maxX - window.minX, window.maxY - window.minY));
    }
  }
}

/** What changes is done first, then what goes, the last of a list first. */
const inOrder = (steps: readonly Step[]): Step[] => [
  ...steps.filter((s) => s.step !== 'removeItem'),
  ...steps.filter((s) => s.step === 'removeItem').sort((a, b) => b.at.index - a.at.index),
];

const keyOf = ({ loops }: Area): string =>
  loops[0]
    .map(([p]) => `${p.x.toFixed(3)},${p.y.toFixed(3)}`)
    .sort()
    .join(' ');
const holdsPlace = (area: Area, p: Point): boolean => outlineHolds({ runs: runsOfArea(area) }, p);
const boxOfPlaces = (places: readonly Point[]): Box =>
  places.map((p): Box => ({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y })).reduce(joinBoxes);
const centreOf = (places: readonly Point[]): Point => scale(places.reduce(add), 1 / places.length);
const nearest = (places: readonly Point[], p: Point): Point =>
  places.reduce((a, b) => (distance(b, p) < distance(a, p) ? b : a));
const sizeOf = (flat: Flat): number => Math.abs(flat.runs.flatMap(cubicsOf).reduce((sum, c) => sum + cubicArea(c), 0));
