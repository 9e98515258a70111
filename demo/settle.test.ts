import { measureSettle, notesOfSettled } from './measureSettle';
import { pearSketch, snailSketch } from './sketches';

// The pear at 2,000 px of height; nodes disturbed by 6 px.
test.each([
  ['pear', () => pearSketch(1410)],
  ['snail', snailSketch],
])(
  'disturbed lines of the %s come to lie on its ink',
  async (_, sketch) => {
    const scene = await sketch();
    for (const seed of [11, 13]) {
      const { near, nearBefore, furtherOnTheWhole } = measureSettle(scene, 6, 12, seed);
      expect(nearBefore).toBeLessThan(0.4);
      expect(near).toBeGreaterThan(0.95);
      expect(furtherOnTheWhole).toBe(0);
    }
  },
  60_000,
);

test.each([
  ['pear', () => pearSketch(1410)],
  ['snail', snailSketch],
])(
  'lines of the %s that settle together bring no note that was not there',
  async (_, sketch) => {
    const scene = await sketch();
    for (const [by, seed] of [
      [4, 3],
      [6, 2],
    ]) {
      const { before, after, fresh } = notesOfSettled(scene, by, 12, seed);
      expect(fresh).toEqual([]);
      expect(after).toBeLessThan(before);
    }
  },
  60_000,
);
