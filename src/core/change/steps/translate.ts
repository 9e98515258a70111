import { z } from 'zod';
import { isOnGrid, keepOnGrid, lineOnGrid } from '../../drawing/grid';
import { idSchema, offsetSchema, type Line } from '../../drawing/schema';
import type { Point } from '../../geometry/point';
import { ChangeError } from '../changeError';
import { definition } from './definition';

/** Any number of lines moved by one offset. Their places lie on the grid, so that moving there and back is exact. */
export const translate = definition({
  schema: z.strictObject({
    step: z.literal('translate'),
    ids: z.array(idSchema).min(1).max(200_000),
    by: offsetSchema,
  }),
  apply(draft, { ids, by }) {
    if (!isOnGrid(by.x) || !isOnGrid(by.y)) throw new ChangeError('the offset is not on the grid');
    for (const id of ids) {
      const found = draft.find(id);
      if (!found) throw new ChangeError(`line ${id} is not there`);
      draft.setLine(found.sheet, found.index, translated(found.line, by));
    }
  },
  inverse: (step) => ({ ...step, by: { x: 0 - step.by.x, y: 0 - step.by.y } }),
  lines: ({ ids }) => ids,
});

/** A line moved. @throws ChangeError where it does not lie on the grid, so that this could not be taken back. */
function translated(line: Line, by: Point): Line {
  if (lineOnGrid(line) !== line) throw new ChangeError(`line ${line.id} is not on the grid`);
  const runs = line.runs.map((run) => ({
    ...run,
    nodes: run.nodes.map((n) => ({ ...n, point: { x: n.point.x + by.x, y: n.point.y + by.y } })),
  }));
  keepOnGrid(runs);
  return { ...line, runs };
}
