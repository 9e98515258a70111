import { dequal } from 'dequal';
import type { Step } from '../change/change';
import { edit, sidesOf, type Edit } from '../change/edit';
import { findItem } from '../drawing/find';
import { runFromCubics } from '../drawing/fromCubics';
import { runsOnGrid } from '../drawing/grid';
import type { Flat } from '../drawing/item';
import { boundingLines, flatsIn } from '../drawing/items';
import { outlineBox, outlineHolds, polygonOf } from '../drawing/outline';
import { cornerAt, cubicsOf, lineBox, widestHalf } from '../drawing/run';
import type { Drawing, Line, Run } from '../drawing/schema';
import { arrangementOf } from '../flats/arrangement';
import { boxOfOutline } from '../flats/regions';
import { indexOfBoxes } from '../geometry/boxIndex';
import type { Point } from '../geometry/point';
import { windingAround } from '../geometry/polygon';
import { bodyOf } from '../ink/body';
import { grownStroke } from '../ink/grown';
import { placeIn, type PlacedArea } from './placedArea';
import { changedLines } from './movedLines';

/** A flat goes so far beneath the bodies of its lines that no paper shows at their edges: px, and a share of their width. */
const BENEATH = { px: 0.4, share: 0.15 };
/** Bodies are made of as few curves as hold so near to them, px. */
const FITTED = 0.05;

const bodies = new WeakMap<Line, readonly Run[]>();

/** The body of a line, a little thinner than it is, without the gaps of its dashes. */
function thinnedBody(line: Line): readonly Run[] {
  let runs = bodies.get(line);
  if (!runs) {
    const width = 2 * widestHalf(line);
    runs = width > 0 ? thinned(line, 1 - 2 * Math.min(BENEATH.px / width, BENEATH.share)) : [];
    bodies.set(line, runs);
  }
  return runs;
}

function thinned(line: Line, k: number): Run[] {
  const { style, marks } = grownStroke(line, k);
  return bodyOf({ runs: line.runs, marks, style: { ...style, dash: undefined } }, FITTED)
    .filter((outline) => outline.length > 0)
    .map((outline) => runFromCubics(outline, true));
}

/**
 * What of each of some flats lies outside of the bodies of the lines that bound them, for all of them at once: parts and
 * holes as closed runs, even-odd. Where the bodies cover all of one, it is a mere point.
 */
export function innerOutlines(d: Drawing, flats: readonly Pick<Flat, 'runs' | 'at' | 'without'>[]): (readonly Run[])[] {
  if (flats.length === 0) return [];
  const near = indexOfBoxes(flats.map(outlineBox));
  const beside = d.sheets.flatMap((sheet) =>
    boundingLines(sheet.items).flatMap((line) => {
      const { minX, minY, maxX, maxY } = lineBox(line);
      const isNear = near.collides(minX, minY, maxX, maxY, (i) => !flats[i].without?.includes(sheet.id));
      const body = isNear ? thinnedBody(line) : [];
      return body.length > 0 ? [{ sheet: sheet.id, body }] : [];
    }),
  );
  const covering = beside.length > 0 ? indexOfBoxes(beside.map((b) => outlineBox({ runs: b.body }))) : null;
  const isCovered = (p: Point, without: readonly string[] = []): boolean =>
    covering?.collides(p.x, p.y, p.x, p.y, (i) => {
      const { sheet, body } = beside[i];
      return !without.includes(sheet) && body.reduce((n, r) => n + windingAround(polygonOf(r), p), 0) !== 0;
    }) ?? false;
  const found = flats.map((): Run[] => []);
  const runs = [...flats.flatMap((f) => f.runs), ...beside.flatMap((b) => b.body)].filter((r) => r.nodes.length > 1);
  const parts = arrangementOf(
    runs.map((run) => ({ cubics: cubicsOf(run), closed: true })),
    { gap: 0 },
  );
  for (const { loops } of parts.areas()) {
    const { minX, minY, maxX, maxY } = boxOfOutline(loops[0]);
    if (!near.collides(minX, minY, maxX, maxY)) continue;
    const part = loops.map((l) => runFromCubics(l, true));
    const p = placeIn(part);
    for (const i of near.search(p.x, p.y, p.x, p.y))
      if (outlineHolds(flats[i], p) && !isCovered(p, flats[i].without)) found[i].push(...part);
  }
  return found.map((part, i) =>
    runsOnGrid(part.length > 0 ? part : [{ closed: true, nodes: [cornerAt(flats[i].at)] }]),
  );
}

/** Areas, each with what of it lies outside of the bodies of the lines that bound it. */
export function withInner(d: Drawing, areas: readonly PlacedArea[], without: readonly string[]): PlacedArea[] {
  const inner = innerOutlines(
    d,
    areas.map((area) => ({ ...area, without })),
  );
  return areas.map((area, i) => ({ ...area, inner: inner[i] }));
}

/** Flats painted to the bodies of their lines only, or again to the middles of these. */
export function keepWithinBodies(d: Drawing, ids: Iterable<string>, isWithin: boolean): Edit {
  const places = [...ids].flatMap((id) => {
    const found = findItem(d, id);
    return found?.item.kind === 'flat' ? [{ sheet: found.sheet.id, flat: found.item }] : [];
  });
  const inner = isWithin
    ? innerOutlines(
        d,
        places.map((p) => p.flat),
      )
    : null;
  const label = isWithin ? 'Flats to the lines’ edges' : 'Flats to the lines’ middles';
  return edit(
    label,
    places.flatMap(({ sheet, flat }, i) => setInner(sheet, flat, inner ? inner[i] : null)),
  );
}

function setInner(sheet: string, flat: Flat, inner: readonly Run[] | null): Step[] {
  if (dequal(flat.inner ?? null, inner)) return [];
  const sides = sidesOf<{ inner: Flat['inner'] }>({ inner: flat.inner ?? null }, { inner });
  return sides ? [{ step: 'setFlat', sheet, id: flat.id, ...sides }] : [];
}

/**
 * What of flats is to be seen anew after an edit by which some lines have become others, their widths too: `led` is what
 * followed from it, by which flats have other outlines, or have been divided.
 */
export function refitted(before: Drawing, after: Drawing, led: Drawing): Step[] {
  const kept = (d: Drawing) =>
    d.sheets.flatMap((s) => flatsIn(s.items).flatMap((flat) => (flat.inner ? [{ sheet: s.id, flat }] : [])));
  const flats = kept(led);
  if (flats.length === 0) return [];
  const boxes = changedLines(before, led).flatMap(({ was, is }) => [was, is].flatMap((l) => (l ? [lineBox(l)] : [])));
  const index = boxes.length > 0 ? indexOfBoxes(boxes) : null;
  const were = new Map(kept(after).map(({ flat }) => [flat.id, flat]));
  const touched = flats.filter(({ flat }) => {
    const { minX, minY, maxX, maxY } = outlineBox(flat);
    const was = were.get(flat.id);
    const isLed = !was || (was.runs !== flat.runs && was.inner === flat.inner);
    return isLed || index?.collides(minX, minY, maxX, maxY);
  });
  const inner = innerOutlines(
    led,
    touched.map((t) => t.flat),
  );
  return touched.flatMap(({ sheet, flat }, i) => setInner(sheet, flat, inner[i]));
}
