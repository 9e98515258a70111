import { applyChange, type Drawing, type Point } from '@/core';
import type { Edit } from '@/core/change/edit';
import { allFlats } from '@/core/edits/flats';
import { followingSteps, withFollowing } from '@/core/edits/following';
import { moveLines } from '@/core/edits/lines';
import { levelLine } from '@/core/test/levelLines';
import { wanderingDrawing } from '@/core/test/drawings';
import { pour } from '@/core/test/pour';
import { benchWith } from '../test/hand';

const freshId = (): string => 'fresh';
const upright = (id: string, x: number) => {
  const line = levelLine(id, 0, 0);
  const at = (y: number) => ({ point: { x, y }, in: null, out: null, kind: 'corner' as const });
  return { ...line, runs: [{ closed: false, nodes: [at(50), at(350)] }] };
};
const empty = wanderingDrawing(0, 1, 1);
const crossed: Drawing = {
  ...empty,
  sheets: [
    {
      ...empty.sheets[0],
      items: [levelLine('top', 100, 100), levelLine('bottom', 300, 300), upright('left', 100), upright('right', 300)],
    },
  ],
};
const poured = applyChange(
  crossed,
  pour(crossed, { x: 200, y: 200 }, { fill: '#c33d2b', gap: 0, freshId: () => 'f' })!.edit,
);
const down = (y: number): Edit => moveLines(poured, ['bottom'], { x: 0, y });
const outline = (d: Drawing): Point[] => allFlats(d)[0].runs[0].nodes.map((n) => n.point);

/** Answers that come when they are let. */
function workingElsewhere() {
  const asked: { edit: Edit; answer: () => Promise<void>; fail: () => Promise<void> }[] = [];
  const elsewhere = (d: Drawing, edit: Edit): Promise<Edit['steps']> =>
    new Promise((resolve, reject) =>
      asked.push({
        edit,
        answer: async () => {
          resolve(followingSteps(d, applyChange(d, edit), freshId));
          await new Promise((r) => setTimeout(r));
        },
        fail: async () => {
          reject(new Error('gone'));
          await new Promise((r) => setTimeout(r));
        },
      }),
    );
  return { asked, elsewhere };
}

const exact = (edit: Edit): Point[] => outline(applyChange(poured, withFollowing(poured, edit, freshId)));

describe('what follows under a hand', () => {
  test('is seen at once where nobody else works it out', () => {
    const bench = benchWith(poured);
    bench.show(down(40));
    expect(outline(bench.getState().preview!)).toEqual(exact(down(40)));
  });

  test('is asked for elsewhere one at a time, the newest next, and seen when it comes', async () => {
    const bench = benchWith(poured);
    const { asked, elsewhere } = workingElsewhere();
    bench.followElsewhere(elsewhere);
    for (const y of [10, 20, 30]) bench.show(down(y));
    expect(asked.map((a) => a.edit)).toEqual([down(10)]);
    expect(outline(bench.getState().preview!)).toEqual(outline(poured));
    await asked[0].answer();
    expect(outline(bench.getState().preview!)).toEqual(exact(down(10)));
    expect(asked.map((a) => a.edit)).toEqual([down(10), down(30)]);
    await asked[1].answer();
    expect(outline(bench.getState().preview!)).toEqual(exact(down(30)));
    expect(asked).toHaveLength(2);
  });

  test('an answer that comes when the hand has let go, or has begun anew, is not seen', async () => {
    const bench = benchWith(poured);
    const { asked, elsewhere } = workingElsewhere();
    bench.followElsewhere(elsewhere);
    bench.show(down(10));
    bench.show(null);
    await asked[0].answer();
    expect(bench.getState().preview).toBeNull();
    bench.show(down(20));
    bench.commit(down(20));
    expect(outline(bench.getState().drawing)).toEqual(exact(down(20)));
    const again = moveLines(bench.getState().drawing, ['bottom'], { x: 0, y: 7 });
    bench.show(again);
    const seen = bench.getState().preview;
    await asked[1].answer();
    expect(bench.getState().preview).toBe(seen);
    expect(asked.at(-1)!.edit).toBe(again);
  });

  test('a failure leaves it to the bench', async () => {
    const bench = benchWith(poured);
    const { asked, elsewhere } = workingElsewhere();
    let isThere = true;
    bench.followElsewhere((d, edit) => (isThere ? elsewhere(d, edit) : null));
    bench.show(down(10));
    isThere = false;
    await asked[0].fail();
    bench.show(down(20));
    expect(outline(bench.getState().preview!)).toEqual(exact(down(20)));
  });
});
