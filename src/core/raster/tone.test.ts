import fc from 'fast-check';
import { firstCorrections } from './correction';
import { rgbaImage } from './rgba';
import { levelsAt, pickedTone } from './tone';

/** A patch of paper, of which a share of the pixels is ink. */
function patch(paper: number, ink: number, inked: number) {
  const image = rgbaImage(9, 9);
  for (let i = 0; i < 81; i++) image.data.set([1, 1, 1].map(() => (i < inked ? ink : paper)).concat(255), 4 * i);
  return image;
}

test('a press on a thin stroke means its ink, one on paper its paper', () => {
  expect(pickedTone(patch(230, 70, 25), 'ink')).toEqual({ which: 'ink', tone: 70 });
  expect(pickedTone(patch(230, 70, 25), 'paper')).toEqual({ which: 'paper', tone: 230 });
  expect(pickedTone(patch(230, 70, 75), 'paper').tone).toBeGreaterThan(70);
});

test('bare paper is never taken for ink, nor what is all ink for paper', () => {
  expect(pickedTone(patch(241, 236, 40), 'ink')).toEqual({ which: 'paper', tone: 241 });
  expect(pickedTone(patch(40, 34, 40), 'paper')).toEqual({ which: 'ink', tone: 34 });
});

test('ink stays darker than paper, wherever they are picked', () => {
  const tone = fc.integer({ min: 0, max: 255 });
  const picks = fc.array(fc.tuple(fc.constantFrom('ink' as const, 'paper' as const), tone), { maxLength: 6 });
  fc.assert(
    fc.property(picks, (list) => {
      let levels = firstCorrections.levels;
      for (const [which, at] of list) {
        levels = levelsAt(levels, which, at);
        expect(levels.white - levels.black).toBeGreaterThanOrEqual(1);
        expect(levels.black).toBeGreaterThanOrEqual(0);
        expect(levels.white).toBeLessThanOrEqual(255);
        if (at > 0 && at < 255) expect(which === 'ink' ? levels.black : levels.white).toBe(at);
      }
    }),
  );
});
