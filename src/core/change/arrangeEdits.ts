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

/** Steps that take lines out of a sheet and put them in again so that `order` comes about. */
function reorder(sheet: Sheet, order: readonly Line[], moved: ReadonlySet<string>): Step[] {
  const out = sheet.lines
    .map((line, index) => ({ line, index }))
    .filter(({ line }) => moved.has(line.id))
    .reverse()
    .map(({ line, index }): Step => ({ step: 'removeLine', sheet: sheet.id, index, line }));
  const back = order
    .map((line, index) => ({ line, index }))
    .filter(({ line }) => moved.has(line.id))
    .map(({ line, index }): Step => ({ step: 'insertLine', sheet: sheet.id, index, line }));
  return [...out, ...back];
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
  const steps = from.flatMap(({ sheet, lines }): Step[] => [
    ...[...lines].reverse().map((line): Step => ({
      step: 'removeLine',
      sheet: sheet.id,
      index: indexInSheet(sheet, line.id),
      line,
    })),
    ...lines.map((line): Step => ({ step: 'insertLine', sheet: to, index: index++, line })),
  ]);
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
  const grouped = lines.map((l): Line => {
    const path = l.groups ?? [];
    return { ...l, groups: [...path.slice(0, depth), id, ...path.slice(depth)] };
  });
  const top = sheet.lines.reduce((last, l, i) => (ids.has(l.id) ? i : last), 0);
  const below = sheet.lines.slice(0, top + 1).filter((l) => !ids.has(l.id));
  const above = sheet.lines.slice(top + 1);
  const out = reorder(sheet, [...below, ...lines, ...above], ids).map((s): Step => {
    if (s.step !== 'insertLine') return s;
    return { ...s, line: grouped[lines.findIndex((l) => l.id === s.line.id)] };
  });
  return edit(counted('Group', lines.length, 'line'), out);
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
