import type { Reference } from '@/core';
import { setCorrection } from '@/core/edits/references';
import { correct, sourceOf } from '../../state/corrections';
import type { Bench } from '../../state/store';
import { correctionsBefore } from '../../tools/pictureTool';

/** Finds how far the picture lies askew, and turns it back by that. */
export async function layStraight(bench: Bench, r: Reference): Promise<void> {
  const degrees = await correct.skew(sourceOf(r), correctionsBefore(r, 'turn')).catch(() => null);
  if (degrees === null) bench.tell('Nothing straight was found to go by. Set the turn by hand.');
  else {
    const turn = { kind: 'turn', on: true, degrees: Math.round(degrees * 100) / 100 } as const;
    bench.commit(setCorrection(bench.getState().drawing, r.id, turn, 'Lay picture straight'));
  }
}
