import { linesOf } from '@/core/drawing/items';
import type { BenchState } from '../state/store';
import { nodeCount } from '@/core/drawing/find';

/** A step of the first trace: what to do, and how it is seen that it is done, since the walk began. Six steps, each seen on the bench itself. */
export type WalkStep = {
  title: string;
  text: string;
  done(now: BenchState, start: BenchState): boolean;
};

const newLines = (now: BenchState, start: BenchState) => {
  const known = new Set(start.drawing.sheets.flatMap((s) => linesOf(s).map((l) => l.id)));
  return now.drawing.sheets.flatMap((s) => linesOf(s).filter((l) => !known.has(l.id)));
};
const made = (now: BenchState, start: BenchState, label: string): boolean =>
  now.undoable.slice(start.undoable.length).some((c) => c.label.startsWith(label));

export const walkSteps: readonly WalkStep[] = [
  {
    title: 'Take the pen',
    text: 'The picture lies below, dimmed and locked: nothing you do moves it. Press A, or click the pen in the tray.',
    done: (now) => now.tool === 'pen',
  },
  {
    title: 'Lay three nodes',
    text: 'Click on the sketch where a line begins, and again at its next two turns. Far apart is good: curves need few nodes.',
    done: (now, start) => newLines(now, start).some((l) => nodeCount(l) >= 3),
  },
  {
    title: 'Pull a curve',
    text: 'Press where the line goes on and drag in the direction it takes, before you let go. The dashes show what the next press brings.',
    done: (now, start) => newLines(now, start).some((l) => l.runs.some((r) => r.nodes.some((n) => n.in || n.out))),
  },
  {
    title: 'End the line',
    text: 'Enter ends it where it is; a click on its first node closes it. A double-click never ends it.',
    done: (now, start) => now.underPen === null && newLines(now, start).some((l) => nodeCount(l) >= 2),
  },
  {
    title: 'Bend it onto the ink',
    text: 'Press F and drag a segment by its middle: it runs through the pointer. Every drag is one undo step.',
    done: (now, start) => made(now, start, 'Bend segment'),
  },
  {
    title: 'Look at it alone',
    text: 'Hold V: the picture is lifted away for as long as the key is down, and your line is seen alone.',
    done: (now) => now.peek,
  },
];
