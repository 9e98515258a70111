import type { Line } from '../drawing/schema';
import { cornerAt } from '../drawing/run';
import { bodyOf, marksFromPressure, widthAt } from './body';

describe('width marks', () => {
  const marks = [
    { at: 0.2, left: 1, right: 2 },
    { at: 0.6, left: 5, right: 4 },
  ];

  it('hold between, before and after', () => {
    expect(widthAt(marks, 0)).toMatchObject({ left: 1, right: 2 });
    expect(widthAt(marks, 0.4)).toEqual({ left: expect.closeTo(3), right: expect.closeTo(3) });
    expect(widthAt(marks, 1)).toMatchObject({ left: 5, right: 4 });
  });

  it('make a body: left of the way it runs is up for a line to the right', () => {
    const line: Pick<Line, 'runs' | 'marks'> = {
      runs: [{ closed: false, nodes: [cornerAt({ x: 0, y: 0 }), cornerAt({ x: 100, y: 0 })] }],
      marks: [{ at: 0.5, left: 6, right: 2 }],
    };
    const body = bodyOf(line)!;
    const middle = body.filter((p) => p.x > 1 && p.x < 99).map((p) => p.y);
    expect([Math.min(...middle), Math.max(...middle)]).toEqual([expect.closeTo(-6, 6), expect.closeTo(2, 6)]);
    expect(bodyOf({ runs: line.runs })).toBeNull();
  });

  it('come from pressure: few, and nowhere further from it than the tolerance', () => {
    const samples = Array.from({ length: 200 }, (_, i) => ({
      way: i * 2,
      pressure: 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / 199),
    }));
    const found = marksFromPressure(samples, 8);
    expect(found.length).toBeLessThan(20);
    for (const s of samples) {
      const half = ((0.2 + 1.3 * s.pressure) * 8) / 2;
      expect(Math.abs(widthAt(found, s.way / 398).left - half)).toBeLessThan(0.3);
    }
    expect(
      marksFromPressure(
        samples.map((s) => ({ ...s, pressure: 0.5 })),
        8,
      ),
    ).toHaveLength(2);
    expect(marksFromPressure([], 8)).toEqual([]);
  });
});
