import Flatbush from 'flatbush';
import { applyChange } from '../change/apply';
import type { Step } from '../change/change';
import type { Edit } from '../change/edit';
import { findItem, placeOf } from '../drawing/find';
import { lineOnGrid, pointOnGrid } from '../drawing/grid';
import type { Flat } from '../drawing/item';
import { linesOf } from '../drawing/items';
import { cubicsOf, nearestOnLine, skeletonBox } from '../drawing/run';
import type { Drawing, Line } from '../drawing/schema';
import { sidesOf } from '../change/edit';
import { arrangementWithin, boxOfBounds, boxOfOutline, type Bound } from '../flats/regions';
import type { Area, Arrangement } from '../flats/arrangement';
import { boxesMeet, emptyBox, growBox, holdsBox, joinBoxes } from '../geometry/box';
import { cubicArea, evaluate } from '../geometry/cubic';
import { add, distance, scale, subtract, type Box, type Point } from '../geometry/point';
import { carriedFlats, type Moved } from './carriedFlats';
import { allFlats, boundsOf, flatHolds, runsOfArea } from './flats';

/** Places that stand for a flat: so many across its box, of those that lie in it; of very many flats fewer. */
const ACROSS = { few: 9, many: 5, from: 100 };
/** A part of a flat that has been divided off keeps its colour where it has this share of the places, and two at least. */
const PART = { share: 0.08, least: 2 };
/** A place of an outline this near to a line is of it, page units. */
const ON_LINE = 0.3;
const WIDER = 0.6;
/** So much of a flat is found before what lies further around is left out. */
const MOSTLY = 0.9;
/** An area so many times as large as the flat was is no longer its own: its lines have opened to another. */
const OPENED = 3;

/**
 * An edit, with what becomes of flats by it: each follows the lines that bound it. When they no longer do it keeps its
 * outline and is marked as open; divided, each part keeps the colour; joined, the larger one's. In one change, so that one
 * press takes all of it back.
 */
export function withFlats(d: Drawing, edit: Edit, freshId: () => string): Edit {
  if (edit.steps.length === 0 || allFlats(d).length === 0) return edit;
  const steps = following(d, applyChange(d, { id: 'flats', ...edit }), freshId);
  return steps.length > 0 ? { ...edit, steps: [...edit.steps, ...steps] } : edit;
}

/** What flats are to be so as to follow what lines have become. */
export function following(before: Drawing, after: Drawing, freshId: () => string): Step[] {
  const moved = differing(before, after);
  if (moved.length === 0) return [];
  const boxes = moved.flatMap(({ was, is }) => [was, is].flatMap((l) => (l ? [skeletonBox(l)] : [])));
  const all = allFlats(after);
  const touched = all.filter((f) => {
    const box = growBox(skeletonBox(f), Math.max(1, f.gap));
    return boxes.some((b) => boxesMeet(b, box));
  });
  if (touched.length === 0) return [];
  const carried = carriedFlats(after, moved, touched);
  const along = new Set(carried?.flats);
  const rest = touched.filter((f) => !along.has(f));
  return [
    ...(carried ? [{ step: 'translate' as const, ids: carried.flats.map((f) => f.id), by: carried.by }] : []),
    ...(rest.length > 0 ? new Following(after, moved, all, rest, freshId).steps() : []),
  ];
}

/** The lines that are seen and have come, gone or changed their shape. */
function differing(before: Drawing, after: Drawing): Moved[] {
  const list = (d: Drawing): Line[] => d.sheets.filter((s) => s.visible).flatMap((s) => linesOf(s));
  const was = new Map(list(before).map((l) => [l.id, l]));
  const moved: Moved[] = [];
  for (const is of list(after)) {
    const old = was.get(is.id);
    was.delete(is.id);
    if (old?.runs !== is.runs) moved.push({ was: old, is });
  }
  return [...moved, ...[...was.values()].map((l) => ({ was: l, is: undefined }))];
}

type Sought = { flat: Flat; places: Point[]; at: Point; size: number };

class Following {
  private readonly bounds: Bound[];
  /** The box of all places that are looked at, and the areas in it, by the gap. */
  private around: Box = emptyBox;
  private readonly first = new Map<number, Arrangement>();
  /** Where the lines that have moved were. */
  private readonly before: Flatbush;

  constructor(
    private readonly d: Drawing,
    private readonly moved: readonly Moved[],
    private readonly all: readonly Flat[],
    private readonly touched: readonly Flat[],
    private readonly freshId: () => string,
  ) {
    this.bounds = boundsOf(d);
    this.before = new Flatbush(moved.length);
    for (const { was, is } of moved) {
      const { minX, minY, maxX, maxY } = skeletonBox(was ?? is!);
      this.before.add(minX, minY, maxX, maxY);
    }
    this.before.finish();
  }

  steps(): Step[] {
    const steps: Step[] = [];
    const claimed = new Map<string, Area>();
    const touched = new Set(this.touched);
    const untouched = this.all.filter((f) => !touched.has(f));
    const isTaken = (area: Area): boolean => claimed.has(keyOf(area)) || untouched.some((f) => holdsPlace(area, f.at));
    // The larger ones first: of two that have become one the larger stays.
    const sought = this.touched.map((f) => this.seek(f)).sort((a, b) => b.size - a.size);
    const own = this.touched.map((f) => skeletonBox(f)).reduce(joinBoxes);
    // A line that has moved, where it is no larger than the flats are.
    const lines = this.moved.flatMap(({ is }) =>
      is && boxArea(skeletonBox(is)) < 2 * boxArea(own) ? [skeletonBox(is)] : [],
    );
    this.around = [own, ...lines, boxOfPlaces(sought.flatMap((s) => s.places))].reduce(joinBoxes);
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
    const controls = this.controlsOf(flat);
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
    const { minX, minY, maxX, maxY } = growBox(skeletonBox(flat), 1);
    const near = this.before.search(minX, minY, maxX, maxY).map((i) => this.moved[i]);
    return flat.runs.flatMap(cubicsOf).flatMap((c) =>
      [0, 0.5].map((t) => {
        const from = evaluate(c, t);
        return { from, by: movedBy(near, from) };
      }),
    );
  }

  private within = (window: Box, gap: number): Arrangement => arrangementWithin(this.bounds, window, { gap });

  /** The areas around all flats that are touched. */
  private together(gap: number): Arrangement {
    let found = this.first.get(gap);
    if (!found) this.first.set(gap, (found = this.within(growBox(this.around, 8 + gap), gap)));
    return found;
  }

  /** The areas that a flat's places lie in, the one with the most first. */
  private votesOf(flat: Flat, places: readonly Point[], size: number): { area: Area; places: Point[] }[] {
    const limit = boxOfBounds(this.bounds);
    const box = boxOfPlaces(places);
    const most = OPENED * Math.max(box.maxX - box.minX, box.maxY - box.minY) + 100;
    let window = growBox(this.around, 8 + flat.gap);
    for (let round = 0; ; round++) {
      // All together at first: most flats that hang on a node share their lines.
      const arrangement = round === 0 ? this.together(flat.gap) : this.within(window, flat.gap);
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

/** How far the line that a place lay on has moved there; not at all where it lay on none of these. */
function movedBy(moved: readonly Moved[], p: Point): Point {
  for (const { was, is } of moved) {
    const on = was && is && nearestOnLine(was, p);
    if (!on || on.distance > ON_LINE) continue;
    const now = is?.runs[on.run];
    const isAlike = now && now.nodes.length === was.runs[on.run].nodes.length && now.closed === was.runs[on.run].closed;
    if (isAlike) return subtract(evaluate(cubicsOf(now)[on.segment], on.t), on.point);
  }
  return { x: 0, y: 0 };
}

/** Places evenly spread in a flat. */
function placesIn(flat: Flat, across: number): Point[] {
  const { minX, minY, maxX, maxY } = skeletonBox(flat);
  const places: Point[] = [];
  for (let i = 0; i < across; i++)
    for (let k = 0; k < across; k++) {
      const p = { x: minX + ((i + 0.5) / across) * (maxX - minX), y: minY + ((k + 0.5) / across) * (maxY - minY) };
      if (flatHolds(flat, p)) places.push(p);
    }
  return places;
}

const keyOf = ({ loops }: Area): string =>
  loops[0]
    .map(([p]) => `${p.x.toFixed(3)},${p.y.toFixed(3)}`)
    .sort()
    .join(' ');
const holdsPlace = (area: Area, p: Point): boolean => flatHolds({ runs: runsOfArea(area) }, p);
const boxOfPlaces = (places: readonly Point[]): Box =>
  places.map((p): Box => ({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y })).reduce(joinBoxes);
const centreOf = (places: readonly Point[]): Point => scale(places.reduce(add), 1 / places.length);
const nearest = (places: readonly Point[], p: Point): Point =>
  places.reduce((a, b) => (distance(b, p) < distance(a, p) ? b : a));
const sizeOf = (flat: Flat): number => Math.abs(flat.runs.flatMap(cubicsOf).reduce((sum, c) => sum + cubicArea(c), 0));
const boxArea = (b: Box): number => (b.maxX - b.minX) * (b.maxY - b.minY);
