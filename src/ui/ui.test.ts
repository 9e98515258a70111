import fc from 'fast-check';
import { fromUnit, pixelsAt, toUnit } from '@/core/drawing/unit';
import { units } from '@/core/drawing/schema';
import { formatBytes, formatCount, formatLength, formatNumber, formatShare, formatSince } from './format';
import { parseLength, parseNumber } from './measure';

describe('lengths that people type', () => {
  test.each([
    ['12', 'px', 12],
    ['10', 'mm', (10 * 96) / 25.4],
    ['10 mm', 'px', (10 * 96) / 25.4],
    ['1in', 'mm', 96],
    ['3 mm + 2pt', 'px', (3 * 96) / 25.4 + (2 * 96) / 72],
    ['(210mm - 10mm)/2', 'px', (100 * 96) / 25.4],
    ['2*(1cm + 1cm)', 'px', (4 * 96) / 2.54],
    ['(1 + 2)mm', 'px', (3 * 96) / 25.4],
    ['1,5', 'pt', 2],
    ['4 × 3', 'px', 12],
    ['−5', 'px', -5],
  ] as const)('%s in %s', (text, unit, px) => expect(parseLength(text, unit)).toBeCloseTo(px, 9));

  test.each(['', 'wide', '3 ells', '1/0', '2 +', 'import("x")', '3mm mm', '1e999', 'x=3', '[1,2]'])(
    '“%s” makes no sense',
    (text) => expect(parseLength(text, 'mm')).toBeNull(),
  );

  test('numbers take arithmetic, and no units', () => {
    expect(['300', '2 * 75', '1,5', '4 px', ''].map(parseNumber)).toEqual([300, 150, 1.5, null, null]);
  });

  test('what is shown can be typed back', () => {
    fc.assert(
      fc.property(fc.double({ min: -5000, max: 5000, noNaN: true }), fc.constantFrom(...units), (px, unit) => {
        expect(fromUnit(toUnit(px, unit), unit)).toBeCloseTo(px, 6);
        const shown = formatLength(px, unit, 6).replace(/,/g, '');
        expect(parseLength(shown, 'px')).toBeCloseTo(px, 3);
      }),
    );
  });
});

test('a page of 148 mm at 300 dpi is 1748 px wide', () => expect(pixelsAt(fromUnit(148, 'mm'), 300)).toBe(1748));

test('figures are written in one way', () => {
  expect([
    formatNumber(1748.256),
    formatNumber(-3.5),
    formatShare(0.4),
    formatCount(1, 'line'),
    formatCount(1200, 'line'),
  ]).toEqual(['1,748.26', '−3.5', '40 %', '1 line', '1,200 lines']);
  expect([formatBytes(512), formatBytes(2900), formatBytes(1_400_000)]).toEqual(['512 bytes', '2.9 kB', '1.4 MB']);
  expect(formatLength(fromUnit(61.42, 'mm'), 'mm')).toBe('61.42 mm');
});

test('times are told as people tell them', () => {
  const now = Date.UTC(2026, 10, 24, 12);
  const ago = (minutes: number) => formatSince(now - minutes * 60_000, now);
  expect([ago(0.2), ago(5), ago(60), ago(60 * 26), ago(60 * 24 * 30)]).toEqual([
    'just now',
    '5 minutes ago',
    '1 hour ago',
    'yesterday',
    'Oct 25, 2026',
  ]);
});
