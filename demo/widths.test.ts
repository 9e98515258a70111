import { crossingScene } from './crossings';
import { measureWidths, type WidthFigures } from './measureWidths';

test('where others cross, cover or end in a stroke, its own width is read, never theirs', () => {
  const f: WidthFigures = { seen: 0, right: 0, length: 0, over: 0 };
  // Forty of them, every other kind of width, from 8 degrees on; among them hubs.
  for (let seed = 13; seed < 53; seed++) {
    const { image, cubics, width, toOthers } = crossingScene(seed);
    measureWidths(image, { cubics, closed: false }, width, toOthers, f);
  }
  expect(f.right / f.seen).toBeGreaterThan(0.98);
  expect(f.over / f.length).toBeLessThan(0.005);
  expect(f.seen).toBeGreaterThan(4_500);
}, 120_000);
