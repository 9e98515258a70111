import type { Drawing } from '@/core';
import { nodeAt, nodeOfKey } from '@/core/edits/nodes';
import { findLine, isOpenSheet, sheetOf } from '@/core/drawing/find';
import type { BenchState } from './store';

/** What is chosen, less what is no longer there or can no longer be touched. */
export function reconciled(s: BenchState, after: Drawing): Partial<BenchState> {
  const lines = [...s.lines].filter((id) => {
    const found = findLine(after, id);
    return found && isOpenSheet(found.sheet);
  });
  const stays = new Set(lines);
  const nodes = [...s.nodes].filter((key) => {
    const ref = nodeOfKey(key);
    return stays.has(ref.line) && nodeAt(after, ref);
  });
  const sheet = sheetOf(after, s.sheet) ? s.sheet : neighbourSheet(s, after);
  const reference = after.references.some((r) => r.id === s.reference) ? s.reference : null;
  return {
    sheet,
    reference,
    solo: s.solo !== null && sheetOf(after, s.solo) ? s.solo : null,
    ...(lines.length === s.lines.size ? {} : { lines: stays }),
    ...(nodes.length === s.nodes.size ? {} : { nodes: new Set(nodes) }),
    mark: s.mark !== null && lines.length === 1 && marksIn(after, lines[0]) > s.mark ? s.mark : null,
  };
}

const marksIn = (d: Drawing, line: string): number => findLine(d, line)?.line.marks?.length ?? 0;

/** The sheet that lies where a removed one was. */
function neighbourSheet(s: BenchState, after: Drawing): string {
  const was = s.drawing.sheets.findIndex((x) => x.id === s.sheet);
  return (after.sheets[Math.max(0, Math.min(was, after.sheets.length) - 1)] ?? after.sheets.at(-1))?.id ?? '';
}
