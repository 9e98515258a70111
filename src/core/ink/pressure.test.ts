import fc from 'fast-check';
import { answering, firstResponse, firstResponses, marksFromPressure, type Response } from './pressure';
import { widthProfile } from './widths';

const samplesOf = (pressureAt: (share: number) => number, n = 200) =>
  Array.from({ length: n }, (_, i) => ({ travelled: i * 2, pressure: pressureAt(i / (n - 1)) }));

describe('marks from pressure', () => {
  it('are few, and nowhere further from it than the tolerance', () => {
    const samples = samplesOf((t) => 0.5 - 0.5 * Math.cos(2 * Math.PI * t));
    const found = marksFromPressure(samples, 8);
    expect(found.length).toBeLessThan(20);
    const profile = widthProfile(found);
    for (const s of samples) {
      const half = ((0.2 + 1.3 * s.pressure) * 8) / 2;
      expect(Math.abs(profile.at(s.travelled / 398).left - half)).toBeLessThan(0.2);
    }
  });

  it('are two where the hand was steady, and none where there is no way', () => {
    expect(
      marksFromPressure(
        samplesOf(() => 0.5),
        8,
      ),
    ).toHaveLength(2);
    expect(marksFromPressure([], 8)).toEqual([]);
    expect(
      marksFromPressure(
        [
          { travelled: 0, pressure: 0.5 },
          { travelled: 0, pressure: 1 },
        ],
        8,
      ),
    ).toEqual([]);
  });

  it('of a closed stroke are as wide at its end as where it begins', () => {
    const samples = samplesOf((t) => 0.3 + 0.5 * t);
    const found = marksFromPressure(samples, 8, firstResponse, true);
    expect(found.at(-1)!.left).toBe(found[0].left);
    expect(found[0].left).toBeGreaterThan(marksFromPressure(samples, 8)[0].left);
  });
});

describe('a response', () => {
  it('goes through its points, and never beyond two neighbours', () => {
    const rising = fc
      .array(
        fc.record({
          pressure: fc.double({ min: 0.02, max: 0.98, noNaN: true }),
          share: fc.double({ min: 0, max: 2, noNaN: true }),
        }),
        {
          maxLength: 5,
        },
      )
      .map((list): Response => {
        const inner = [...new Map(list.map((a) => [Math.round(a.pressure * 50), a])).values()].sort(
          (a, b) => a.pressure - b.pressure,
        );
        return [{ pressure: 0, share: 0.2 }, ...inner, { pressure: 1, share: 1.5 }];
      })
      .filter((r) => r.every((a, i) => i === 0 || a.pressure - r[i - 1].pressure > 1e-3));
    fc.assert(
      fc.property(rising, fc.double({ min: 0, max: 1, noNaN: true }), (response, pressure) => {
        const shareAt = answering(response);
        for (const a of response) expect(shareAt(a.pressure)).toBeCloseTo(a.share, 9);
        const after = response.findIndex((a) => a.pressure >= pressure);
        const [low, high] = [response[Math.max(0, after - 1)].share, response[after].share].sort((a, b) => a - b);
        expect(shareAt(pressure)).toBeGreaterThanOrEqual(low - 1e-9);
        expect(shareAt(pressure)).toBeLessThanOrEqual(high + 1e-9);
      }),
    );
  });

  it('answers early or late by the ones that are there', () => {
    const half = (name: string): number => answering(firstResponses.find((r) => r.name === name)!.response)(0.5);
    expect(half('evenly')).toBeCloseTo(0.85, 9);
    expect(half('early')).toBeGreaterThan(1.2);
    expect(half('late')).toBeLessThan(0.5);
    for (const { response } of firstResponses) expect(answering(response)(2)).toBe(response.at(-1)!.share);
  });
});
