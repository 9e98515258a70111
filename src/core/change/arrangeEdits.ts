import { findLine, indexInSheet, sheetOf } from '../drawing/find';
import type { Drawing, Line, Sheet } from '../drawing/schema';
import type { Step } from './change';
import { counted, edit, type Edit } from './edit';

/** Where lines go within their sheet: one place, or all the way. */
export type Way = 'forward' | 'back' | 'to front' | 'to back';

const onSheets = (d: Drawing, ids: ReadonlySet<string>): { sheet: Sheet; lines: Line[] }[] =>
  d.sheets
    .map((sheet) => ({ sheet, lines: sheet.lines.filter((l) => ids.has(l.id)) }))
    .filter(({ lines }) => lines.length > 0);

/**
 * Steps that move lines within a sheet so that `order` comes about. First they all go on top, from the lowest on, then each
 * to its place, the lowest first: so no step shifts the place of one that is still to come.
 */
function reorder(sheet: Sheet, order: readonly Line[], moved: ReadonlySet<string>): Step[] {
  const top = sheet.lines.length - 1;
  const place = (index: number) => ({ sheet: sheet.id, index });
  const going = sheet.lines.flatMap((line, index) => (moved.has(line.id) ? [{ id: line.id, index }] : []));
  const up = going.map(({ id, index }, i): Step => ({
    step: 'moveLine',
    id,
    from: place(index - i),
    to: place(top),
  }));
  const rest = sheet.lines.length - going.length;
  const on = going.map(({ id }) => id);
  const down = order.flatMap((line, index): Step[] => {
    if (!moved.has(line.id)) return [];
    const at = on.indexOf(line.id);
    on.splice(at, 1);
    const settled = going.length - on.length - 1;
    return [{ step: 'moveLine', id: line.id, from: place(rest + settled + at), to: place(index) }];
  });
  return [...up, ...down].filter((s) => s.step !== 'moveLine' || s.from.index !== s.to.index);
}

/** Lines moved in the painting order of their sheets; their order among themselves stays. */
export function moveInOrder(d: Drawing, ids: ReadonlySet<string>, way: Way): Edit {
  const steps = onSheets(d, ids).flatMap(({ sheet, lines }) => {
    const order = ordered(sheet, lines, ids, way);
    const same = order.every((l, i) => l === sheet.lines[i]);
    return same ? [] : reorder(sheet, order, ids);
  });
  return edit(`${counted('Move', ids.size, 'line')} ${way}`, steps);
}

function ordered(sheet: Sheet, lines: Line[], ids: ReadonlySet<string>, way: Way): Line[] {
  const rest = sheet.lines.filter((l) => !ids.has(l.id));
  if (way === 'to front') return [...rest, ...lines];
  if (way === 'to back') return [...lines, ...rest];
  const order = [...sheet.lines];
  const step = way === 'forward' ? 1 : -1;
  // From the side that they go to, so that neighbours among them keep their order.
  const indices = order.flatMap((l, i) => (ids.has(l.id) ? [i] : []));
  if (step > 0) indices.reverse();
  for (const i of indices) {
    const j = i + step;
    if (j < 0 || j >= order.length || ids.has(order[j].id)) continue;
    [order[i], order[j]] = [order[j], order[i]];
  }
  return order;
}

/** One line moved to a place in the painting order of its sheet. */
export function moveToPlace(d: Drawing, id: string, to: number): Edit {
  const found = findLine(d, id);
  if (!found) return edit('Move line');
  const order = found.sheet.lines.filter((l) => l.id !== id);
  order.splice(to, 0, found.line);
  return edit('Move line', to === found.index ? [] : reorder(found.sheet, order, new Set([id])));
}

/** Lines put on top of another sheet; their order stays. */
export function moveToSheet(d: Drawing, ids: ReadonlySet<string>, to: string): Edit {
  const target = sheetOf(d, to);
  const from = onSheets(d, ids).filter(({ sheet }) => sheet.id !== to);
  if (!target) return edit('Move to sheet');
  let index = target.lines.length;
  const steps = from.flatMap(({ sheet, lines }) =>
    // Each that has gone leaves those above it one place lower.
    lines.map((line, gone): Step => ({
      step: 'moveLine',
      id: line.id,
      from: { sheet: sheet.id, index: indexInSheet(sheet, line.id) - gone },
      to: { sheet: to, index: index++ },
    })),
  );
  return edit(`${counted('Move', ids.size, 'line')} to ${target.name}`.slice(0, 200), steps);
}

/**
 * Lines of one sheet made a group within `within` (the groups that are entered): they come to lie next to each other,
 * where the top one was. Nothing happens for lines of several sheets.
 */
export function groupLines(d: Drawing, ids: ReadonlySet<string>, id: string, within: readonly string[] = []): Edit {
  const parts = onSheets(d, ids);
  if (parts.length !== 1) return edit('Group');
  const [{ sheet, lines }] = parts;
  const depth = within.length;
  const grouped = lines.map((l): Step => {
    const path = l.groups ?? [];
    const groups = [...path.slice(0, depth), id, ...path.slice(depth)];
    return { step: 'setLine', sheet: sheet.id, id: l.id, before: { groups: [...path] }, after: { groups } };
  });
  const top = sheet.lines.reduce((last, l, i) => (ids.has(l.id) ? i : last), 0);
  const below = sheet.lines.slice(0, top + 1).filter((l) => !ids.has(l.id));
  const above = sheet.lines.slice(top + 1);
  return edit(counted('Group', lines.length, 'line'), grouped, reorder(sheet, [...below, ...lines, ...above], ids));
}

/** The outermost groups below `within` that the lines are in, taken apart. */
export function ungroupLines(d: Drawing, ids: ReadonlySet<string>, within: readonly string[] = []): Edit {
  const depth = within.length;
  const gone = new Set(onSheets(d, ids).flatMap(({ lines }) => lines.flatMap((l) => l.groups?.[depth] ?? [])));
  const steps = d.sheets.flatMap((sheet) =>
    sheet.lines
      .filter((l) => gone.has(l.groups?.[depth] ?? ''))
      .map((l): Step => {
        const groups = l.groups!.filter((_, i) => i !== depth);
        return { step: 'setLine', sheet: sheet.id, id: l.id, before: { groups: [...l.groups!] }, after: { groups } };
      }),
  );
  return edit('Ungroup', steps);
}

/** The lines that are chosen with a line: those of its outermost group below `within`, or it alone. */
export function withGroup(d: Drawing, id: string, within: readonly string[] = []): string[] {
  const found = findLine(d, id);
  const group = found?.line.groups?.[within.length];
  if (!found || !group) return [id];
  return found.sheet.lines.filter((l) => l.groups?.[within.length] === group).map((l) => l.id);
}
