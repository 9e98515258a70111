import { setTimeout as wait } from 'node:timers/promises';
import { firstDelivery } from '../src/core/deliver/delivery';
import { moveLines } from '../src/core/edits/lines';
import { allLines } from '../src/core/drawing/items';
import { keepDrawing } from '../src/server/drawings';
import { endJobs } from '../src/server/jobs/pool';
import { appendChanges } from '../src/server/append';
import { stateOf } from '../src/server/journal';
import { exportedDrawing } from '../src/server/render';
import { inFreshFolder } from './inFreshFolder';
import * as scene from './scene';
import { summary, type Summary } from './statistics';

const EVERY = 60;

/**
 * How long changes of one drawing wait to be acknowledged while files are made of one of 10,000 lines, ms: what the server is
 * held up by counts in.
 */
export function acknowledgedMeanwhile(lines: number): Promise<Summary> {
  return inFreshFolder(() => acknowledgedBeside(lines));
}

async function acknowledgedBeside(lines: number): Promise<Summary> {
  try {
    const { id } = keepDrawing('Large', scene.drawing(null, lines));
    const small = keepDrawing('Small', scene.drawing(null, 20));
    const large = stateOf(id).drawing;
    let isDone = false;
    const files = (['png', 'pdf', 'svg'] as const).map((format) =>
      exportedDrawing(large, { ...firstDelivery, format, dpi: 200 }, { title: 'Large' }),
    );
    const all = Promise.all(files).finally(() => (isDone = true));
    const waits: number[] = [];
    for (let n = 0; !isDone; n++) {
      const due = performance.now() + EVERY;
      await wait(EVERY);
      const { drawing, revision } = stateOf(small.id);
      const [line] = allLines(drawing);
      appendChanges(small.id, revision, [{ id: `c${n}`, ...moveLines(drawing, [line.id], { x: 1, y: 0 }) }]);
      waits.push(performance.now() - due);
    }
    await all;
    return summary(waits);
  } finally {
    await endJobs();
  }
}
