import { hurriedRuns, measureFix, shortRuns } from './measureFix';
import { pearSketch, snailSketch } from './sketches';

test.each([
  ['pear', pearSketch],
  ['snail', snailSketch],
])(
  'what is wrong with lines over the %s is put right, and none comes to lie further from its ink',
  async (_, sketch) => {
    const scene = await sketch();
    const cases = [
      { runs: shortRuns(scene, 2), least: 0.9 },
      { runs: hurriedRuns(scene, 4), least: 0.85 },
    ];
    for (const { runs, least } of cases) {
      const { met, worse, kinds } = measureFix(scene.image, runs);
      expect(worse).toEqual([]);
      expect(met).toBeGreaterThanOrEqual(least);
      expect((kinds.gap?.notes ?? 0) + (kinds.overhang?.notes ?? 0)).toBeGreaterThan(10);
    }
  },
  120_000,
);
