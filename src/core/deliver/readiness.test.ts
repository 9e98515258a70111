import { testPage, wanderingLine } from '../test/drawings';
import { cornerAt } from '../drawing/run';
import { emptyDrawing, freshSheet, type Drawing, type Item, type Line } from '../drawing/schema';
import { seeded } from '../seeded';
import { readinessOf } from './readiness';

const inked = (id: string, stroke: Line['style']['stroke']): Line => {
  const line = wanderingLine(id, 2, seeded(1));
  return { ...line, style: { ...line.style, stroke, fill: null } };
};
const flat = (id: string, open: boolean): Item => ({
  kind: 'flat',
  id,
  at: { x: 1, y: 1 },
  gap: 0,
  runs: [
    {
      closed: true,
      nodes: [
        { x: 0, y: 0 },
        { x: 9, y: 0 },
        { x: 0, y: 9 },
      ].map(cornerAt),
    },
  ],
  fill: { swatch: 's' },
  ...(open && { open }),
});
const sheet = (id: string, items: Item[], some: Partial<Drawing['sheets'][number]> = {}) => ({
  ...freshSheet(id, id, '#d1495b'),
  items,
  ...some,
});

test('what is left to do, each with where it is', () => {
  const d: Drawing = {
    ...emptyDrawing(testPage, { id: 'x', name: '', tag: '#000000' }),
    palette: [{ id: 's', name: 'Leaf', colour: '#2a9d8f' }],
    sheets: [
      sheet('done', [inked('a', { swatch: 's' }), flat('f1', true)], { state: 'traced' }),
      sheet('now', [inked('b', '#123456'), inked('c', '#123456')], { state: 'working' }),
      sheet('later', [inked('d', '#654321')]),
      sheet('nothing', []),
      sheet('unseen', [inked('e', { swatch: 's' }), flat('f2', true)], { visible: false, state: 'traced' }),
      // Colours alone are no part to be traced.
      sheet('fills', [flat('f3', false)]),
    ],
  };
  expect(readinessOf(d)).toEqual({
    parts: { 'to do': ['later'], working: ['now'], traced: ['done', 'unseen'] },
    empty: ['nothing'],
    hidden: ['unseen'],
    open: ['f1'],
    strays: [
      { colour: '#123456', items: ['b', 'c'] },
      { colour: '#654321', items: ['d'] },
    ],
  });
  expect(readinessOf({ ...d, palette: [] }).strays).toEqual([]);
});
