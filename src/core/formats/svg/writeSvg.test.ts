import { allLines, linesOf } from '../../drawing/items';
import { Resvg } from '@resvg/resvg-js';
import fc from 'fast-check';
import { cubicsFrom } from '@/server/simulated/curves/path';
import { placedReference } from '../../edits/references';
import { cubicsOf } from '../../drawing/run';
import { emptyDrawing, firstStyle, type Drawing, type Line } from '../../drawing/schema';
import { distance, point } from '../../geometry/point';
import { mixedRun, testPage, wanderingDrawing } from '../../test/drawings';
import { decimal, pathData } from '../pathData';
import { readSvg } from './readSvg';
import { writeSvg } from './writeSvg';

const withLines = (lines: Line[], name = 'Pear outline'): Drawing => {
  const d = emptyDrawing(testPage, { id: 's', name, tag: '#8f2d63' });
  return { ...d, sheets: [{ ...d.sheets[0], items: lines }] };
};

test('path data holds the geometry to half of the last decimal', () => {
  fc.assert(
    fc.property(fc.nat(500), fc.integer({ min: 2, max: 8 }), (seed, count) => {
      const run = mixedRun(seed, count, false);
      const back = cubicsFrom(pathData({ runs: [run] }).replace(/([MCL])/g, ' $1'));
      const truth = cubicsOf(run);
      expect(back).toHaveLength(truth.length);
      back.forEach((c, i) => {
        expect(distance(c[0], truth[i][0])).toBeLessThan(0.001);
        expect(distance(c[3], truth[i][3])).toBeLessThan(0.001);
        const straight = c[0] === c[1];
        if (!straight) expect(Math.max(distance(c[1], truth[i][1]), distance(c[2], truth[i][2]))).toBeLessThan(0.001);
      });
    }),
  );
});

test('numbers are short: no needless zeros, no minus nought', () => {
  expect([decimal(1, 3), decimal(1.5, 3), decimal(-0.0001, 3), decimal(10, 0), decimal(0.1 + 0.2, 3)]).toEqual([
    '1',
    '1.5',
    '0',
    '10',
    '0.3',
  ]);
});

test('closed runs, straight sides, several runs and a lone node', () => {
  const corner = (x: number, y: number) => ({ point: point(x, y), in: null, out: null, kind: 'corner' as const });
  const square = { closed: true, nodes: [corner(0, 0), corner(10, 0), corner(10, 10)] };
  expect(pathData({ runs: [square] })).toBe('M0 0L10 0L10 10Z');
  expect(pathData({ runs: [square, { closed: false, nodes: [corner(5, 5)] }] })).toBe('M0 0L10 0L10 10ZM5 5h0');
});

test('one element a line, sheets as named groups, hidden ones left out, no picture', () => {
  const d = wanderingDrawing(8, 3, 2);
  const drawing = {
    ...d,
    sheets: d.sheets.map((s, i) => ({ ...s, visible: i !== 1, name: i === 3 ? 'Sheet 1' : s.name })),
    references: [
      placedReference(d.page, {
        id: 'r',
        name: 'x',
        picture: 'a'.repeat(64),
        pixelWidth: 10,
        pixelHeight: 10,
        dpi: null,
      }),
    ],
  };
  const svg = writeSvg(drawing);
  expect(svg.match(/<path /g)).toHaveLength(6);
  expect([...svg.matchAll(/<g id="([^"]+)"/g)].map((m) => m[1])).toEqual(['Sheet-1', 'Sheet-3', 'Sheet-1-2']);
  expect(svg).not.toContain('<image');
  expect(svg).toContain('width="264.5833mm" height="185.2083mm" viewBox="0 0 1000 700"');
  expect(writeSvg(drawing, { reference: true })).toMatch(/<image [^>]*opacity="0.6"[^>]*xlink:href="pictures\/a{64}"/);
  const turned = {
    ...drawing,
    dim: 0.5,
    references: [{ ...drawing.references[0], turn: 30, flipX: true, blend: 'multiply' as const }],
  };
  const image = /<image [^>]*>/.exec(writeSvg(turned, { reference: true, pictureHref: (r) => `of-${r.id}` }))![0];
  expect(image).toContain('opacity="0.3"');
  expect(image).toContain('rotate(30) scale(-1 1)');
  expect(image).toContain('mix-blend-mode:multiply');
  expect(image).toContain('xlink:href="of-r"');
  expect(() => writeSvg(drawing, { precision: -1 })).toThrow(RangeError);
});

test('names cannot break out of the markup', () => {
  const svg = writeSvg(
    withLines(linesOf(wanderingDrawing(1, 2, 1).sheets[0]) as Line[], `"><script>alert('1')</script>&\u0000`),
  );
  expect(svg).not.toContain('<script');
  expect(() => new Resvg(svg)).not.toThrow();
});

test('an independent renderer puts the ink where the lines are, and nowhere else', () => {
  const corner = (x: number, y: number) => ({ point: point(x, y), in: null, out: null, kind: 'corner' as const });
  const line: Line = {
    id: 'l',
    style: { ...firstStyle, width: 10, cap: 'butt', stroke: '#000000' },
    runs: [{ closed: false, nodes: [corner(100, 350), corner(900, 350)] }],
  };
  const image = new Resvg(writeSvg(withLines([line])), { fitTo: { mode: 'width', value: 1000 } }).render();
  const alphaAt = (x: number, y: number) => image.pixels[(y * image.width + x) * 4 + 3];
  expect([image.width, image.height]).toEqual([1000, 700]);
  expect([alphaAt(500, 346), alphaAt(500, 353), alphaAt(500, 340), alphaAt(500, 360), alphaAt(95, 350)]).toEqual([
    255, 255, 0, 0, 0,
  ]);
});

test('the drawing alone is as large as its lines with their widths', () => {
  const d = wanderingDrawing(3, 3, 7);
  const [, x, y, w, h] = /viewBox="(\S+) (\S+) (\S+) (\S+)"/.exec(writeSvg(d, { scope: 'drawing' }))!.map(Number);
  for (const p of allLines(d).flatMap((l) => l.runs[0].nodes.map((n) => n.point))) {
    expect(p.x > x && p.x < x + w && p.y > y && p.y < y + h).toBe(true);
  }
});

test('names of lines stand as ids and titles, and come back, those of living strokes too', () => {
  const run = mixedRun(7, 4, false);
  const named = (id: string, name: string, more: Partial<Line> = {}): Line => ({
    id,
    style: firstStyle,
    runs: [run],
    ...more,
    name,
  });
  const marks = [
    { at: 0, left: 1, right: 1 },
    { at: 1, left: 4, right: 2 },
  ];
  const lines = [named('a', 'Stem'), named('b', 'Stem'), named('c', 'A <leaf> & "vein"', { marks })];
  const svg = writeSvg(withLines([...lines, { id: 'd', style: firstStyle, runs: [run] }]));
  expect([...svg.matchAll(/<path id="([^"]*)"/g)].map((m) => m[1])).toEqual(['Stem', 'Stem-2', 'A-leaf-vein']);
  const back = readSvg(svg).drawing.sheets;
  expect(back.map((s) => s.name)).toEqual(['Pear outline']);
  expect(allLines({ sheets: back } as Drawing).map((l) => l.name)).toEqual([
    'Stem',
    'Stem',
    'A <leaf> & "vein"',
    undefined,
  ]);
});
