import { sizeOf } from '@/core/change/bounds';
import { changeSchema } from '@/core/change/change';
import { itemsOnGrid } from '@/core/drawing/grid';
import type { Bench } from '../state/store';
import type { Picking } from './picking';
import { whenIdle } from '@/ui/whenIdle';

/**
 * What the first press and the first drag ask of very many lines, worked out before there is a hand to wait for it. Gives
 * what calls it off.
 */
export function readyForHand(bench: Bench, picking: Picking): () => void {
  return whenIdle(() => {
    const { drawing } = bench.getState();
    picking.prepare(drawing);
    for (const { items } of drawing.sheets) itemsOnGrid(items);
    sizeOf(drawing);
    // A schema makes itself ready with the first that it is shown.
    changeSchema.safeParse({ id: 'a', label: 'Move', steps: [{ step: 'translate', ids: ['a'], by: { x: 0, y: 0 } }] });
  });
}
