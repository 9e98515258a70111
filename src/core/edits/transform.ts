import { findLine, listOf, placeOf, type Found } from '../drawing/find';
import type { Item } from '../drawing/item';
import { isGroup, linesIn, mapItem, mapOutlines } from '../drawing/items';
import { byList, unitOf, wholeItemsOf } from '../drawing/whole';
import { reflowed } from '../drawing/node';
import { grownStroke } from '../ink/grown';
import { movedRuns, skeletonBoxOf } from '../drawing/run';
import type { Drawing, Line, Node } from '../drawing/schema';
import { isEmptyBox } from '../geometry/box';
import { growthOf, mapOffset, mapPoint, type Matrix } from '../geometry/matrix';
import { add, type Box, type Point } from '../geometry/point';
import type { Step } from '../change/change';
import { counted, edit, type Edit } from '../change/edit';
import { moveLines } from './lines';

const found = (d: Drawing, ids: Iterable<string>): Found[] => [...new Set(ids)].flatMap((id) => findLine(d, id) ?? []);

/** The box around lines, without their widths; null without lines. */
export function boxOfLines(d: Drawing, ids: Iterable<string>): Box | null {
  const box = skeletonBoxOf(found(d, ids).map((f) => f.line));
  return isEmptyBox(box) ? null : box;
}

/** A line under an affine map; its width and marks grow with it if `widths` says so. */
export function mappedLine(line: Line, m: Matrix, widths: boolean): Line {
  const growth = growthOf(m);
  const node = (n: Node): Node => ({
    ...n,
    point: mapPoint(m, n.point),
    in: n.in && mapOffset(m, n.in),
    out: n.out && mapOffset(m, n.out),
    ...(n.radius ? { radius: n.radius * growth } : {}),
  });
  const runs = line.runs.map((r) => reflowed({ ...r, nodes: r.nodes.map(node) }));
  const isMirrored = m.a * m.d - m.b * m.c < 0;
  const grows = widths && Math.abs(growth - 1) >= 1e-12;
  if (!grows && !(isMirrored && line.marks)) return { ...line, runs };
  const { style, marks } = grows ? grownStroke(line, growth) : line;
  // What was on the left of the line is on its right in a mirror.
  const turned = isMirrored && marks ? marks.map((k) => ({ ...k, left: k.right, right: k.left })) : marks;
  return { ...line, runs, style, ...(turned && { marks: turned }) };
}

/** Lines moved, scaled, turned, slanted or flipped by an affine map. */
export function transformLines(d: Drawing, ids: Iterable<string>, m: Matrix, widths: boolean, verb: string): Edit {
  const list = found(d, ids);
  const steps = list.map(({ sheet, line }): Step => {
    const { runs, style, marks } = mappedLine(line, m, widths);
    const grew = style !== line.style;
    const isOther = marks !== line.marks && line.marks && marks;
    return {
      step: 'setLine',
      sheet: sheet.id,
      id: line.id,
      before: { runs: line.runs, ...(grew && { style: line.style }), ...(isOther && { marks: line.marks }) },
      after: { runs, ...(grew && { style }), ...(isOther && { marks }) },
    };
  });
  return edit(counted(verb, list.length, 'line'), steps);
}

/** To which side, or to the middle, things are brought; each way by itself. */
export type Side = 'left' | 'middle' | 'right' | 'top' | 'centre' | 'bottom';

/** What is brought into line as one: a line, or the lines of a group below `within`, with the box around it. */
type Unit = { readonly ids: readonly string[]; readonly box: Box };

function unitsOf(d: Drawing, ids: Iterable<string>, within: readonly string[]): Unit[] {
  const members = new Map<string, string[]>();
  for (const { sheet, line } of found(d, ids)) {
    const key = unitOf(sheet, line.id, within);
    members.set(key, [...(members.get(key) ?? []), line.id]);
  }
  return [...members.values()].map((list) => ({ ids: list, box: boxOfLines(d, list)! }));
}

const label = (verb: string, units: readonly Unit[]): string =>
  counted(
    verb,
    units.reduce((n, u) => n + u.ids.length, 0),
    'line',
  );

/** Each line, or group, moved so that its side lies on that side of `to` (by default the box around all of them). */
export function alignLines(
  d: Drawing,
  ids: Iterable<string>,
  side: Side,
  within: readonly string[] = [],
  to = boxOfLines(d, ids),
): Edit {
  if (!to) return edit('Align');
  const units = unitsOf(d, ids, within);
  return movedEach(
    d,
    label('Align', units),
    units,
    ({ box: b }) =>
      ({
        left: { x: to.minX - b.minX, y: 0 },
        right: { x: to.maxX - b.maxX, y: 0 },
        middle: { x: (to.minX + to.maxX - b.minX - b.maxX) / 2, y: 0 },
        top: { x: 0, y: to.minY - b.minY },
        bottom: { x: 0, y: to.maxY - b.maxY },
        centre: { x: 0, y: (to.minY + to.maxY - b.minY - b.maxY) / 2 },
      })[side],
  );
}

/** Lines, or groups, moved so that the gaps between them are equal, across or down; the outermost stay. */
export function spreadLines(d: Drawing, ids: Iterable<string>, axis: 'x' | 'y', within: readonly string[] = []): Edit {
  const [low, high] = axis === 'x' ? (['minX', 'maxX'] as const) : (['minY', 'maxY'] as const);
  const units = unitsOf(d, ids, within);
  units.sort((a, b) => a.box[low] + a.box[high] - b.box[low] - b.box[high]);
  if (units.length < 3) return edit('Spread');
  const taken = units.reduce((sum, { box }) => sum + box[high] - box[low], 0);
  const gap = (units.at(-1)!.box[high] - units[0].box[low] - taken) / (units.length - 1);
  let at = units[0].box[low];
  return movedEach(d, label('Spread', units), units, ({ box }) => {
    const by = at - box[low];
    at += box[high] - box[low] + gap;
    return axis === 'x' ? { x: by, y: 0 } : { x: 0, y: by };
  });
}

function movedEach(d: Drawing, what: string, units: readonly Unit[], by: (unit: Unit) => Point): Edit {
  const steps = units.flatMap((unit) => {
    const offset = by(unit);
    return Math.hypot(offset.x, offset.y) < 1e-9 ? [] : moveLines(d, unit.ids, offset).steps;
  });
  return edit(what, steps);
}

/**
 * Copies of lines, and of the groups that they fill, on top of the lists that hold them, with ids from `freshId`, moved by an
 * offset; and the ids of the lines.
 */
export function copiesOf(
  d: Drawing,
  ids: Iterable<string>,
  by: Point,
  freshId: () => string,
  within: readonly string[] = [],
): { edit: Edit; ids: string[] } {
  const lists = byList(wholeItemsOf(d, new Set(ids), within));
  const made = freshItems(
    lists.flatMap((list) => list.map((f) => f.item)),
    freshId,
  ).map((item) => movedItem(item, by));
  let next = 0;
  const steps = lists.flatMap((list) => {
    const end = listOf(list[0]).length;
    return list.map((f, i): Step => {
      return { step: 'insertItem', at: { ...placeOf(f), index: end + i }, item: made[next++] };
    });
  });
  const lines = linesIn(made).map((l) => l.id);
  return { edit: edit(counted('Duplicate', lines.length, 'line'), steps), ids: lines };
}

/**
 * Items with ids of their own, and all in them as well. What is held inside of a shape that is among them is held inside of
 * its copy; of one that is not it keeps the clip, and follows it no more.
 */
export function freshItems(items: readonly Item[], freshId: () => string): Item[] {
  const copies = new Map<string, string>();
  const copied = (item: Item): Item => {
    const id = freshId();
    copies.set(item.id, id);
    if (!isGroup(item)) return { ...item, id };
    const clip = item.clip && { clip: { ...item.clip, id: freshId() } };
    return { ...item, id, items: item.items.map(copied), ...clip };
  };
  const linked = (item: Item): Item => {
    if (!isGroup(item)) return item;
    const { inside, ...own } = item;
    const shape = inside === undefined ? undefined : copies.get(inside);
    return { ...own, items: item.items.map(linked), ...(shape !== undefined && { inside: shape }) };
  };
  return items.map(copied).map(linked);
}

/** An item moved, with all that is in it. */
export function movedItem(item: Item, by: Point): Item {
  if (item.kind === 'picture') return { ...item, at: add(item.at, by) };
  if (item.kind === 'flat') return { ...mapOutlines(item, (runs) => movedRuns(runs, by)), at: add(item.at, by) };
  return mapItem(item, (l) => ({ ...l, runs: movedRuns(l.runs, by) }));
}
