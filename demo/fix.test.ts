import { hurriedRuns, measureFix, pulledRuns } from './measureFix';
import { pearSketch, snailSketch } from './sketches';

test.each([
  ['pear', pearSketch],
  ['snail', snailSketch],
])(
  'what is wrong with lines over the %s is put right, and none comes to lie further from its ink',
  async (_, sketch) => {
    const scene = await sketch();
    const cases = [
      { runs: pulledRuns(scene), least: 0.9 },
      { runs: hurriedRuns(scene, 4), least: 0.85 },
    ];
    for (const { runs, least } of cases) {
      const { met, worse, kinds } = measureFix(scene.image, runs);
      expect(worse).toEqual([]);
      expect(met).toBeGreaterThanOrEqual(least);
      expect(kinds.gap!.notes + kinds.overhang!.notes).toBeGreaterThan(10);
    }
  },
  120_000,
);
