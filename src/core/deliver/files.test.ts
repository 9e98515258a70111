import fc from 'fast-check';
import { groupOf, testPage, wanderingLine } from '../test/drawings';
import { cornerAt } from '../drawing/run';
import { seeded } from '../seeded';
import { emptyDrawing, freshSheet, type Drawing, type Item } from '../drawing/schema';
import { composed } from './composed';
import { firstDelivery, plainSvgLook, type Delivery } from './delivery';
import { fileName, filesOf } from './files';
import { writeComposition } from '../formats/svg/writeSvg';

const wandering = (id: string, seed: number) => wanderingLine(id, 3, seeded(seed));
const sheet = (id: string, some: Partial<Drawing['sheets'][number]> = {}) => ({
  ...freshSheet(id, `Sheet ${id}`, '#d1495b'),
  items: [wandering(`l${id}`, id.length)],
  ...some,
});
const d: Drawing = {
  ...emptyDrawing(testPage, { id: 'x', name: '', tag: '#000000' }),
  folders: [{ id: 'f', name: 'Spout', open: true }],
  sheets: [
    sheet('a', { folder: 'f' }),
    sheet('b'),
    sheet('c', { folder: 'f' }),
    sheet('d', { visible: false }),
    sheet('e', { items: [] }),
  ],
};
const wanted = (some: Partial<Delivery>): Delivery => ({ ...firstDelivery, ...some });
const seenOf = (x: Drawing): string[] => x.sheets.filter((s) => s.visible && s.items.length > 0).map((s) => s.id);

test('a file for each sheet or folder that shows something', () => {
  expect(filesOf(d, wanted({}))).toEqual([{ name: '', drawing: d }]);
  const sheets = filesOf(d, wanted({ each: 'sheet' }));
  expect(sheets.map((f) => [f.name, seenOf(f.drawing)])).toEqual([
    ['Sheet a', ['a']],
    ['Sheet b', ['b']],
    ['Sheet c', ['c']],
  ]);
  const folders = filesOf(d, wanted({ each: 'folder' }));
  expect(folders.map((f) => [f.name, seenOf(f.drawing)])).toEqual([
    ['Spout', ['a', 'c']],
    ['Sheet b', ['b']],
  ]);
  expect(filesOf(d, wanted({ each: 'sheet', scope: 'chosen', chosen: ['lb'] })).map((f) => f.name)).toEqual([
    'Sheet b',
  ]);
  expect(() => filesOf(d, wanted({ scope: 'chosen', chosen: ['nothing'] }))).toThrow(RangeError);
});

test('several share a paper, each in a cell', () => {
  const paper = { width: 800, height: 1_000, margin: 40, title: false, border: true, count: 2 };
  const files = filesOf(d, wanted({ each: 'sheet', paper }));
  expect(files.map((f) => f.beside?.map(seenOf))).toEqual([[['a'], ['b']], [['c']]]);
  const first = composed(files[0].drawing, wanted({ paper }), { beside: files[0].beside! });
  expect(first.art).toHaveLength(2);
  // The last is as large as the others.
  const last = composed(files[1].drawing, wanted({ paper }), { beside: files[1].beside! });
  expect([last.art.length, last.over.length]).toEqual([1, 1]);
});

test('flats that lie together become groups of their own, in their place', () => {
  const corners = [
    { x: 0, y: 0 },
    { x: 9, y: 0 },
    { x: 9, y: 9 },
  ].map(cornerAt);
  const flat = (id: string): Item => ({
    kind: 'flat',
    id,
    at: { x: 8, y: 2 },
    gap: 0,
    runs: [{ closed: true, nodes: corners }],
    fill: '#2a9d8f',
  });
  const mixed: Drawing = {
    ...d,
    sheets: [
      {
        ...sheet('a'),
        items: [flat('f1'), flat('f2'), wandering('l1', 1), groupOf('g', wandering('l2', 2)), flat('f3')],
      },
    ],
  };
  const apart = { ...firstDelivery, svg: { ...plainSvgLook, flats: 'apart' as const } };
  const [layer] = composed(mixed, apart).art;
  expect(layer.kind === 'layer' && layer.children.map((c) => (c.kind === 'layer' ? c.name : c.kind))).toEqual([
    'Sheet a flats',
    'line',
    '',
    'Sheet a flats',
  ]);
  const paths = (svg: string): string[] => svg.match(/<path [^>]*>/g)!;
  const [one, other] = [composed(mixed, firstDelivery), composed(mixed, apart)].map((c) =>
    writeComposition(c, plainSvgLook),
  );
  expect(paths(other)).toEqual(paths(one));
});

test('names of files are taken by any disk, and unlike each other', () => {
  fc.assert(
    fc.property(fc.array(fc.string({ unit: 'grapheme', maxLength: 30 }), { maxLength: 8 }), (names) => {
      const taken = new Set<string>();
      const made = names.map((n) => fileName(['The can', n], 'svg', taken));
      expect(new Set(made.map((n) => n.toLowerCase())).size).toBe(names.length);
      for (const n of made) expect(n).toMatch(/^[^\p{C}/\\:*?"<>|.][^\p{C}/\\:*?"<>|]*\.svg$/u);
    }),
  );
  expect(fileName(['../..', ''], 'png')).toBe('drawing.png');
});
