import { z } from 'zod';
import { isOnGrid, lineOnGrid, pointOnGrid } from '../../drawing/grid';
import type { Item } from '../../drawing/item';
import { mapItem, mapOutlines } from '../../drawing/items';
import { movedOnGrid } from '../../drawing/run';
import { factsOf, keepMoved } from '../../drawing/runFacts';
import type { Line } from '../../drawing/schema';
import { idsSchema, offsetSchema } from '../../drawing/values';
import type { Point } from '../../geometry/point';
import { ChangeError } from '../changeError';
import { definition } from './definition';

/** So many items are moved at a time. */
const PORTION = 500;

/**
 * Any number of items moved by one offset, groups with all that is in them. Their places lie on the grid, so that moving
 * there and back is exact.
 */
export const translate = definition({
  schema: z.strictObject({
    step: z.literal('translate'),
    ids: idsSchema(200_000),
    by: offsetSchema,
  }),
  *apply(draft, { ids, by }) {
    if (!isOnGrid(by.x) || !isOnGrid(by.y)) throw new ChangeError('the offset is not on the grid');
    for (let done = 0; done < ids.length; done += PORTION) {
      if (done > 0) yield;
      draft.replaceEach(ids.slice(done, done + PORTION), (item) => translated(item, by));
    }
  },
  inverse: (step) => ({ ...step, by: { x: 0 - step.by.x, y: 0 - step.by.y } }),
  touches: ({ ids }) => ids,
});

/** An item moved. @throws ChangeError where it does not lie on the grid, so that this could not be taken back. */
function translated(item: Item, by: Point): Item {
  if (item.kind === 'flat') {
    if (pointOnGrid(item.at) !== item.at) throw new ChangeError(`flat ${item.id} is not on the grid`);
    const moved = mapOutlines(item, (runs) => lineMoved({ id: item.id, runs }, by).runs);
    return { ...moved, at: { x: item.at.x + by.x, y: item.at.y + by.y } };
  }
  if (item.kind !== 'picture') return mapItem(item, (line) => lineMoved(line, by));
  if (pointOnGrid(item.at) !== item.at) throw new ChangeError(`picture ${item.id} is not on the grid`);
  return { ...item, at: { x: item.at.x + by.x, y: item.at.y + by.y } };
}

function lineMoved<L extends Pick<Line, 'id' | 'runs'>>(line: L, by: Point): L {
  const facts = factsOf(line.runs);
  if (!facts.onGrid && lineOnGrid(line) !== line) throw new ChangeError(`line ${line.id} is not on the grid`);
  const runs = movedOnGrid(line.runs, by);
  keepMoved(facts, runs, by);
  return { ...line, runs };
}
