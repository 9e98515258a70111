import { dequal } from 'dequal';
import type { Step } from '../change/change';
import { edit, sidesOf, type Edit } from '../change/edit';
import { findItem } from '../drawing/find';
import { runFromCubics } from '../drawing/fromCubics';
import { lineOnGrid } from '../drawing/grid';
import type { Flat } from '../drawing/item';
import { boundingLines, flatsIn } from '../drawing/items';
import { outlineBox, outlineHolds, polygonOf } from '../drawing/outline';
import { cornerAt, cubicsOf, skeletonBox } from '../drawing/run';
import type { Drawing, Line, Run } from '../drawing/schema';
import { arrangementOf } from '../flats/arrangement';
import { boxOfOutline } from '../flats/regions';
import { growBox, holdsBox } from '../geometry/box';
import { indexOfBoxes } from '../geometry/boxIndex';
import type { Point } from '../geometry/point';
import { windingAround } from '../geometry/polygon';
import { bodyOf } from '../ink/body';
import { grownStroke } from '../ink/grown';
import { placeIn } from './placeIn';

/** A flat as far as it matters here. */
export type Bounded = Pick<Flat, 'runs' | 'at' | 'without'>;

/** A flat goes so far beneath the bodies of its lines that no paper shows at their edges: px, and a share of their width. */
const BENEATH = { px: 0.4, share: 0.15 };

/** Boxes are told apart by more than this, px. */
const SAME = 0.05;
/** Bodies are made of as few curves as hold so near to them, px. */
const FITTED = 0.05;

type Body = { readonly runs: readonly Run[] };
const bodies = new WeakMap<Line, Body | null>();

/** How far a line's body reaches from its middle, at most. */
const reachOf = ({ style, marks }: Line): number =>
  Math.max(style.width / 2, ...(marks ?? []).flatMap((m) => [m.left, m.right]));

/** The body of a line, a little thinner than it is; null where it has none. */
function thinnedBody(line: Line): Body | null {
  let body = bodies.get(line);
  if (body === undefined) {
    const width = 2 * reachOf(line);
    const by = Math.min(BENEATH.px, BENEATH.share * width);
    const outlines = width > 0 ? bodyOf({ ...line, ...grownStroke(line, 1 - (2 * by) / width) }, FITTED) : [];
    const runs = outlines.filter((o) => o.length > 0).map((o) => runFromCubics(o, true));
    bodies.set(line, (body = runs.length > 0 ? { runs } : null));
  }
  return body;
}

/**
 * What of each of some flats lies outside of the bodies of the lines that bound them, for all of them at once: parts and
 * holes as closed runs, even-odd. Where the bodies cover all of one, it is a mere point.
 */
export function innerOutlines(d: Drawing, flats: readonly Bounded[]): Run[][] {
  const found = flats.map((): Run[] => []);
  const boxes = flats.map(outlineBox);
  if (flats.length === 0) return found;
  const near = indexOfBoxes(boxes);
  const lines = d.sheets.flatMap((sheet) =>
    boundingLines(sheet.items).flatMap((line) => {
      const { minX, minY, maxX, maxY } = growBox(skeletonBox(line), 2 * reachOf(line));
      const isNear = near.collides(minX, minY, maxX, maxY, (i) => !flats[i].without?.includes(sheet.id));
      const body = isNear && thinnedBody(line);
      return body ? [{ sheet: sheet.id, body, box: outlineBox(body) }] : [];
    }),
  );
  const runs = [...flats.flatMap((f) => f.runs), ...lines.flatMap((l) => l.body.runs)]
    .filter((r) => r.nodes.length > 1)
    .map((run) => ({ cubics: cubicsOf(run), closed: true }));
  const covered = lines.length > 0 ? indexOfBoxes(lines.map((l) => l.box)) : null;
  const isBeneath = (p: Point, without: readonly string[] = []): boolean =>
    covered?.collides(p.x, p.y, p.x, p.y, (i) => {
      const { sheet, body } = lines[i];
      return !without.includes(sheet) && body.runs.reduce((n, r) => n + windingAround(polygonOf(r), p), 0) !== 0;
    }) ?? false;
  for (const { loops } of arrangementOf(runs, { gap: 0 }).areas()) {
    const hull = boxOfOutline(loops[0]);
    if (!near.collides(hull.minX, hull.minY, hull.maxX, hull.maxY)) continue;
    const part = loops.map((l) => runFromCubics(l, true));
    const { minX, minY, maxX, maxY } = outlineBox({ runs: part });
    const around = near
      .search(minX, minY, maxX, maxY)
      .filter((i) => holdsBox(growBox(boxes[i], SAME), { minX, minY, maxX, maxY }));
    if (around.length === 0) continue;
    const p = placeIn(part);
    for (const i of around) if (outlineHolds(flats[i], p) && !isBeneath(p, flats[i].without)) found[i].push(...part);
  }
  return found.map((part, i) => lineOnGrid({ runs: part.length > 0 ? part : [pointRun(flats[i].at)] }).runs as Run[]);
}

const pointRun = (p: Point): Run => ({ closed: true, nodes: [cornerAt(p)] });

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
  const boxes = changedBoxes(before, led);
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

/** Where the bodies of lines that are others now were, and are. */
function changedBoxes(before: Drawing, after: Drawing) {
  const list = (d: Drawing) => d.sheets.flatMap((s) => boundingLines(s.items));
  const old = new Map(list(before).map((l) => [l.id, l]));
  const changed: Line[] = [];
  for (const line of list(after)) {
    const was = old.get(line.id);
    old.delete(line.id);
    if (was !== line) changed.push(line, ...(was ? [was] : []));
  }
  return [...changed, ...old.values()].map((l) => growBox(skeletonBox(l), 2 * reachOf(l)));
}
