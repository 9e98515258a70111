import { gradientAcross } from '../test/gradientAcross';
import { shaded } from '../colour/colour';
import { cornerAt } from '../drawing/run';
import { ellipse } from '../drawing/shapes';
import {
  emptyDrawing,
  firstStyle,
  freshSheet,
  plainPage,
  type Drawing,
  type Item,
  type Line,
  type Paint,
} from '../drawing/schema';
import { groupOf } from '../test/drawings';
import { colourOf, fillBeside, inkOf } from './ink';
import { leafOf, leavesOf, sceneOf } from './scene';

const page = plainPage({ width: 400, height: 400, unit: 'px', dpi: 96, ground: null });
const drawing = (items: Item[], more: Partial<Drawing> = {}): Drawing => ({
  ...emptyDrawing(page, { id: 's', name: 'S', tag: '#aa3322' }),
  sheets: [{ ...freshSheet('s', 'S', '#aa3322'), items }],
  ...more,
});
const ring = (id: string, x: number, y: number, r: number, fill: Paint | null = null): Line => ({
  id,
  runs: [ellipse({ minX: x - r, minY: y - r, maxX: x + r, maxY: y + r })],
  style: { ...firstStyle, fill },
});
const stroke = (id: string, ...at: [number, number][]): Line => ({
  id,
  runs: [{ closed: false, nodes: at.map(([x, y]) => cornerAt({ x, y })) }],
  style: firstStyle,
});

describe('paints', () => {
  test('a shade follows the fill that a line encloses, or else borders; the uppermost of several', () => {
    const [a, vein, far] = [
      ring('a', 100, 100, 60, '#9ac46a'),
      stroke('vein', [70, 100], [130, 100]),
      stroke('far', [300, 300], [350, 300]),
    ];
    const d = drawing([a, vein, far]);
    expect([a, vein, far].map((l) => fillBeside(d, l))).toEqual(['#9ac46a', '#9ac46a', null]);
    const tint: Paint = { of: 'beside', by: 0.5, else: '#101010' };
    expect([a, vein, far].map((l) => colourOf(d, tint, l))).toEqual([
      shaded('#9ac46a', 0.5),
      shaded('#9ac46a', 0.5),
      '#101010',
    ]);
    const over = drawing([a, ring('b', 100, 100, 40, '#334455'), vein]);
    expect(fillBeside(over, vein)).toBe('#334455');
    // In a group it is found as well; on a sheet that is hidden it is not.
    expect(fillBeside(drawing([groupOf('g', a), vein]), vein)).toBe('#9ac46a');
    expect(fillBeside({ ...d, sheets: [{ ...d.sheets[0], visible: false }] }, vein)).toBeNull();
  });

  test('swatches and gradients are looked up; what is missing is grey; a gradient of an item lies on it', () => {
    const line = ring('a', 100, 100, 50);
    const d = drawing([line], {
      palette: [{ id: 'p', name: 'Leaf', colour: '#336633' }],
      gradients: [gradientAcross('g', ['#ffffff', { swatch: 'p' }])],
    });
    expect(colourOf(d, { swatch: 'p' })).toBe('#336633');
    expect(colourOf(d, { swatch: 'none' })).toBe('#808080');
    expect(colourOf(d, { of: { swatch: 'p' }, by: -1, else: '#000000' })).toBe('#ffffff');
    const ink = inkOf(d, { gradient: 'g' }, line);
    expect(ink).toMatchObject({ stops: [{ colour: '#ffffff' }, { colour: '#336633' }] });
    if (typeof ink === 'string') throw new Error('no gradient');
    expect([ink.from.x, ink.to.x]).toEqual([expect.closeTo(50, 6), expect.closeTo(150, 6)]);
  });

  test('a node of the scene is the same for as long as what it shows is', () => {
    const [a, vein] = [ring('a', 100, 100, 60, '#9ac46a'), stroke('vein', [70, 100], [130, 100])];
    const tinted: Line = { ...vein, style: { ...vein.style, stroke: { of: 'beside', by: 0.5, else: '#101010' } } };
    const node = (d: Drawing) => leavesOf(sceneOf(d)).at(-1)!.node;
    const first = node(drawing([a, tinted]));
    expect(node(drawing([a, tinted]))).toBe(first);
    expect(node(drawing([{ ...a, style: { ...a.style, fill: '#336699' } }, tinted]))).not.toBe(first);
  });
});

describe('the tree', () => {
  const [a, b, c] = [stroke('a', [0, 0], [9, 0]), stroke('b', [0, 9], [9, 9]), ring('clip', 5, 5, 5)];

  test('layers are the sheets, groups and lines that change how something looks; all else lies flat', () => {
    const inner = { ...groupOf('inner', { ...b, opacity: 0.5 }), clip: c };
    const d = drawing([groupOf('outer', a, { ...inner, blend: 'multiply' as const })]);
    const faint = { ...d, sheets: [{ ...d.sheets[0], opacity: 0.4 }] };
    expect(leavesOf(sceneOf(d)).map((l) => l.layers.map((x) => x.id))).toEqual([[], ['inner', 'b']]);
    expect(leavesOf(sceneOf(faint)).map((l) => l.layers.map((x) => [x.id, x.opacity, x.blend]))).toEqual([
      [['s', 0.4, 'normal']],
      [
        ['s', 0.4, 'normal'],
        ['inner', 1, 'multiply'],
        ['b', 0.5, 'normal'],
      ],
    ]);
    const line = { ...b, opacity: 0.5 };
    const all = drawing([groupOf('outer', a, { ...groupOf('inner', line), clip: c, blend: 'multiply' as const })]);
    expect(leafOf(all, all.sheets[0], line)).toEqual(leavesOf(sceneOf(all))[1]);
  });

  test('a hidden sheet is not seen; one that is seen alone is; references lie below', () => {
    const d = drawing([a]);
    const two = { ...d, sheets: [...d.sheets, { ...freshSheet('t', 'T', '#336699'), items: [b] }] };
    const ids = (x: Drawing, solo?: string) =>
      leavesOf(sceneOf(x, { solo })).map((l) => l.node.kind === 'line' && l.node.line.id);
    expect(ids(two)).toEqual(['a', 'b']);
    expect(ids(two, 't')).toEqual(['b']);
    expect(ids({ ...two, sheets: two.sheets.map((s) => ({ ...s, visible: s.id === 't' })) })).toEqual(['b']);
  });

  test('a fill lies below its stroke, or above it; a stroke of no width is none', () => {
    const kinds = (line: Line) => {
      const node = leavesOf(sceneOf(drawing([line])))[0].node;
      return node.kind === 'line' ? node.parts.map((p) => (p.kind === 'area' ? p.within : 'stroke')) : [];
    };
    const filled = ring('a', 5, 5, 5, '#ff0000');
    expect(kinds(filled)).toEqual(['line', 'stroke']);
    expect(kinds({ ...filled, style: { ...filled.style, strokeBelow: true } })).toEqual(['stroke', 'line']);
    expect(kinds({ ...filled, style: { ...filled.style, width: 0 } })).toEqual(['line']);
    expect(kinds({ ...filled, marks: [{ at: 0.5, left: 2, right: 1 }] })).toEqual(['line', 'body']);
  });
});
