import { allLines, isGroup, linesOf } from '../../drawing/items';
import { createHash } from 'node:crypto';
import { embedded } from '../../test/svg/embeddedPictures';
import { drawingSchema, readSvg, writeSvg, type Drawing, type Line } from '../../index';
import { groupLines } from '../../edits/arrange';
import { applyChange } from '../../change/apply';
import { cubicsOf } from '../../drawing/run';
import { evaluate } from '../../geometry/cubic';
import { wanderingDrawing } from '../../test/drawings';

const svg = (content: string, root = 'width="200" height="100"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${root}>${content}</svg>`;
const lines = (d: Drawing): Line[] => allLines(d);
const one = (content: string, root?: string): Line => {
  const found = lines(readSvg(svg(content, root)).drawing);
  expect(found).toHaveLength(1);
  return found[0];
};
const places = (l: Line): number[][][] =>
  l.runs.map((r) => r.nodes.map((n) => [Math.round(n.point.x * 100) / 100, Math.round(n.point.y * 100) / 100]));

test('what we write we read: the same page, sheets, groups, styles and curves', () => {
  const plain = wanderingDrawing(24, 3, 8);
  const some = new Set(
    linesOf(plain.sheets[1])
      .slice(1, 4)
      .map((l) => l.id),
  );
  const d = applyChange(plain, { id: 'c', ...groupLines(plain, some, 'g') });
  const { drawing, dropped } = readSvg(writeSvg(d, { precision: 6 }));
  expect(dropped).toEqual([]);
  expect(drawingSchema.safeParse(drawing).success).toBe(true);
  expect(drawing.page).toMatchObject({ unit: 'mm', width: expect.closeTo(d.page.width, 2) });
  expect(drawing.sheets.map((s) => s.name)).toEqual(d.sheets.map((s) => s.name));
  expect(drawing.sheets[1].items.filter(isGroup).map((g) => g.items.length)).toEqual([3]);
  lines(d).forEach((l, i) => {
    const back = lines(drawing)[i];
    expect(back.style).toEqual({ ...l.style, width: expect.closeTo(l.style.width, 4) });
    expect(back.runs[0].closed).toBe(l.runs[0].closed);
    cubicsOf(l.runs[0]).forEach((c, k) => {
      const [a, b] = [evaluate(c, 0.37), evaluate(cubicsOf(back.runs[0])[k], 0.37)];
      expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(0.01);
    });
  });
});

describe('shapes and transforms', () => {
  it.each([
    [
      '<line x1="1" y1="2" x2="3" y2="4"/>',
      [
        [
          [1, 2],
          [3, 4],
        ],
      ],
      false,
    ],
    [
      '<polyline points="0,0 10,0 10,10"/>',
      [
        [
          [0, 0],
          [10, 0],
          [10, 10],
        ],
      ],
      false,
    ],
    [
      '<polygon points="0,0 10,0 10,10"/>',
      [
        [
          [0, 0],
          [10, 0],
          [10, 10],
        ],
      ],
      true,
    ],
    [
      '<rect x="5" y="6" width="10" height="20"/>',
      [
        [
          [5, 6],
          [15, 6],
          [15, 26],
          [5, 26],
        ],
      ],
      true,
    ],
    [
      '<path d="m10 10h10v10h-10z m2 2 h2 v2 z"/>',
      [
        [
          [10, 10],
          [20, 10],
          [20, 20],
          [10, 20],
        ],
        [
          [12, 12],
          [14, 12],
          [14, 14],
        ],
      ],
      true,
    ],
    [
      '<g transform="translate(10 20) scale(2)"><g transform="rotate(90)"><path d="M1 0L3 0"/></g></g>',
      [
        [
          [10, 22],
          [10, 26],
        ],
      ],
      false,
    ],
  ])('%s', (content, wanted, closed) => {
    const line = one(`<g stroke="#123456" fill="none">${content}</g>`);
    expect(places(line)).toEqual(wanted);
    expect(line.runs.every((r) => r.closed === closed)).toBe(true);
  });

  it('circles, rounded rectangles, arcs and quadratic curves become cubics on them', () => {
    const circle = one('<circle cx="50" cy="40" r="30" stroke="red"/>');
    for (const c of cubicsOf(circle.runs[0])) {
      const p = evaluate(c, 0.4);
      expect(Math.hypot(p.x - 50, p.y - 40)).toBeCloseTo(30, 1);
    }
    expect(one('<rect width="40" height="20" rx="5" stroke="red"/>').runs[0].nodes).toHaveLength(8);
    const [q] = cubicsOf(one('<path d="M0 0Q50 100 100 0" stroke="red" fill="none"/>').runs[0]);
    expect(evaluate(q, 0.5)).toEqual({ x: expect.closeTo(50), y: expect.closeTo(50) });
  });

  it('fits the viewBox into the size, and widths grow with it', () => {
    const line = one(
      '<path d="M0 0L10 0" stroke="#000" stroke-width="1"/>',
      'width="1in" height="1in" viewBox="0 0 20 10"',
    );
    expect(places(line)).toEqual([
      [
        [0, 24],
        [48, 24],
      ],
    ]);
    expect(line.style.width).toBeCloseTo(4.8, 6);
  });
});

describe('style', () => {
  it('comes from attributes, rules and the element itself, in that order, and is handed down', () => {
    const css = '<style>path{stroke:#111111} .thin , #x{stroke-width:3}</style>';
    const line = one(
      `${css}<g stroke-linecap="round" fill="tomato"><path class="thin" d="M0 0L9 0" style="stroke-linejoin:bevel"/></g>`,
    );
    expect(line.style).toEqual({ stroke: '#111111', width: 3, cap: 'round', join: 'bevel', fill: '#ff6347' });
  });

  it('a fill without a stroke has no width; what draws nothing is no line', () => {
    expect(one('<path d="M0 0L9 0L9 9Z" fill="rgb(1,2,3)"/>').style).toMatchObject({ width: 0, fill: '#010203' });
    expect(
      lines(readSvg(svg('<path d="M0 0L9 0" fill="none"/><g display="none"><path d="M0 0L9 0"/></g>')).drawing),
    ).toEqual([]);
  });
});

test('dashes, miter limit and paint order come along, grown with the picture', () => {
  const style = 'stroke="red" fill="blue" stroke-linejoin="miter"';
  const { style: read } = one(
    `<path d="M0 0L9 9" ${style} stroke-dasharray="2 1" stroke-dashoffset="3" stroke-miterlimit="9" paint-order="stroke"/>`,
    'width="200" height="100" viewBox="0 0 100 50"',
  );
  expect(read).toMatchObject({ dash: { lengths: [4, 2], offset: 6 }, miterLimit: 9, strokeBelow: true });
});

test('opacity and blend come along: of strokes and fills, of lines, of groups and of sheets', () => {
  const { drawing, dropped } = readSvg(
    svg(`<g id="A" opacity="0.5"><g opacity="50%"><title>Leaf</title>
      <path d="M0 0L9 9L0 9Z" fill="#ff0000" fill-opacity=".5" stroke="rgb(0 0 255 / 25%)" style="mix-blend-mode:multiply"/>
      <path d="M0 0L9 9" stroke="#00ff00" fill="none" opacity=".25"/></g></g>`),
  );
  expect(dropped).toEqual([]);
  const [sheet] = drawing.sheets;
  expect(sheet.opacity).toBe(0.5);
  const [group] = sheet.items.filter(isGroup);
  expect(group).toMatchObject({ name: 'Leaf', opacity: 0.5 });
  expect(linesOf(sheet)).toMatchObject([
    { blend: 'multiply', style: { stroke: '#0000ff40', fill: '#ff000080' } },
    { opacity: 0.25, style: { stroke: '#00ff00' } },
  ]);
  expect(readSvg(writeSvg(drawing)).drawing.sheets[0].items).toEqual(sheet.items);
});

describe('what cannot be kept', () => {
  it('is named once each, with the reason', () => {
    const { drawing, dropped } = readSvg(
      svg(`<defs><path d="M0 0L5 5"/></defs><text>a</text><text>b</text><image href="http://x.test/y.png"/>
        <script>alert(1)</script><use href="#a"/><path d="M0 0L9 9" stroke="url(#g)" opacity=".5" stroke-dasharray="2 -1"/>`),
    );
    expect(lines(drawing)).toHaveLength(1);
    expect(dropped.map((d) => d.what).sort()).toEqual(
      ['dashes', 'gradients and patterns', 'image', 'script', 'text', 'use'].sort(),
    );
    expect(dropped.every((d) => d.why.length > 10)).toBe(true);
  });

  it('entities are never expanded, nor looked up', () => {
    const bomb = `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;"><!ENTITY f SYSTEM "file:///etc/passwd">]>${svg('<title>&b;&f;</title><path d="M0 0L9 9" stroke="red"/>')}`;
    expect(() => readSvg(bomb)).toThrow(RangeError);
    const named = `<!DOCTYPE svg SYSTEM "http://x.test/a.dtd">${svg('<path d="M0 0L9 9" stroke="red"/>')}`;
    expect(readSvg(named).dropped.map((d) => d.what)).toEqual(['document type']);
  });

  it.each([
    ['', /sound/],
    ['hello', /sound|svg/],
    ['<html><body/></html>', /outermost/],
    ['<svg><path d="M0 0"', /sound/],
    [`<svg>${'<g>'.repeat(300)}${'</g>'.repeat(300)}</svg>`, /deeply/],
  ])('a text that is no SVG is refused: %#', (text, why) => {
    expect(() => readSvg(text)).toThrow(why);
    expect(() => readSvg(text)).toThrow(RangeError);
  });

  it('path data that is broken is left out, and the rest is kept', () => {
    const { drawing, dropped } = readSvg(
      svg('<path d="M0 0L" stroke="red"/><path d="M0 0L1e999 0" stroke="red"/><path d="M0 0L5 5" stroke="red"/>'),
    );
    expect(lines(drawing).length).toBe(1);
    expect(dropped.map((d) => d.what)).toEqual(['paths that cannot be read']);
  });
});

describe('what not every renderer knows', () => {
  it('a transform by style, about an origin', () => {
    const [run] = one(
      '<rect width="10" height="10" fill="red" style="transform:rotate(90deg);transform-origin:10px 0"/>',
    ).runs;
    expect(run.nodes.map((n) => [Math.round(n.point.x), Math.round(n.point.y)])).toEqual([
      [10, -10],
      [10, 0],
      [0, 0],
      [0, -10],
    ]);
  });

  it('dashes by a path’s own idea of its length, a stroke that keeps its width, variables that name swatches', () => {
    const dashed = one(
      '<path d="M0 0H200" stroke="red" pathLength="10" stroke-dasharray="1 2" stroke-dashoffset="1"/>',
    );
    expect(dashed.style.dash).toEqual({
      lengths: [expect.closeTo(20), expect.closeTo(40)],
      offset: expect.closeTo(20),
    });
    const constant = one(
      '<g transform="scale(3 2)"><path d="M0 0L9 9" stroke="red" stroke-width="5" vector-effect="non-scaling-stroke"/></g>',
    );
    expect(constant.style.width).toBe(5);
    const text =
      '<style>svg{--leaf-green:#228833}.a{fill:var(--leaf-green);stroke:var(--none,#111)}</style><path class="a" d="M0 0L9 9L0 9Z"/>';
    const { drawing } = readSvg(svg(text));
    expect(drawing.palette).toEqual([{ id: expect.any(String), name: 'leaf green', colour: '#228833' }]);
    expect(lines(drawing)[0].style).toMatchObject({ fill: { swatch: drawing.palette![0].id }, stroke: '#111111' });
  });
});

test('a mask that cannot be kept is named, and what it cuts is shown whole', () => {
  for (const inner of [
    `<image width="9" height="9" href="${embedded.png}"/>`,
    '<rect width="9" height="9" fill="url(#g)"/>',
  ]) {
    const gradient = '<linearGradient id="g"><stop stop-color="#fff"/><stop offset="1"/></linearGradient>';
    const { drawing, dropped } = readSvg(
      svg(`${gradient}<mask id="m">${inner}</mask><rect width="20" height="20" fill="red" mask="url(#m)"/>`),
    );
    expect(dropped.map((d) => d.what)).toEqual(['mask']);
    expect(drawing.sheets[0].items).toMatchObject([{ style: { fill: '#ff0000' } }]);
  }
});

test('a picture in the text becomes a picture of the art, and is written with its bytes again', () => {
  const { drawing, pictures } = readSvg(
    svg(`<g id="A"><image width="80" height="60" transform="rotate(90)" href="${embedded.png}"/></g>`),
  );
  expect(pictures).toMatchObject([{ mime: 'image/png', width: 40, height: 30 }]);
  expect(drawing.sheets[0].items).toMatchObject([
    { kind: 'picture', picture: pictures[0].hash, pixelWidth: 40, pixelHeight: 30, width: 80, height: 60, turn: 90 },
  ]);
  expect(writeSvg(drawing)).toContain(embedded.png);
  expect(createHash('sha256').update(pictures[0].bytes).digest('hex')).toBe(pictures[0].hash);
});
