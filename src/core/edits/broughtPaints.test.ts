import { applyChange, drawingSchema, readSvg } from '../index';
import { allLines } from '../drawing/items';
import { edit } from '../change/edit';
import { emptyDrawing, type Drawing } from '../drawing/schema';
import { inkOf } from '../scene/ink';
import { testPage } from '../test/drawings';
import { broughtPaints } from './broughtPaints';

const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="90" height="90"><style>svg{--leaf:#228833}</style>
  <linearGradient id="g"><stop stop-color="#ff0000"/><stop offset="1" stop-color="#0000ff"/></linearGradient>
  <g><rect width="9" height="9" fill="url(#g)"/><rect width="9" height="9" fill="var(--leaf)"/></g></svg>`;

let count = 0;
function brought(d: Drawing): Drawing {
  const { drawing: from } = readSvg(svg);
  const { items, steps } = broughtPaints(d, from.sheets[0].items, from, () => `fresh${++count}`);
  const [sheet] = d.sheets;
  const inserted = items.map((item, i) => ({
    step: 'insertItem' as const,
    at: { sheet: sheet.id, index: sheet.items.length + i },
    item: 'runs' in item ? { ...item, id: `i${++count}` } : item,
  }));
  return applyChange(d, { id: 'c', ...edit('Paste', [...steps, ...inserted]) });
}

test('paints come with what they are painted with, once, and under ids that are free', () => {
  const empty = emptyDrawing(testPage, { id: 's', name: 'A', tag: '#8f2d63' });
  const other = { ...empty, gradients: [{ ...readSvg(svg).drawing.gradients![0], kind: 'radial' as const }] };
  const once = brought(other);
  expect(drawingSchema.safeParse(once).error).toBeUndefined();
  expect(once.gradients).toHaveLength(2);
  expect(new Set(once.gradients!.map((g) => g.id)).size).toBe(2);
  expect(once.palette).toMatchObject([{ name: 'leaf', colour: '#228833' }]);
  const inks = allLines(once).map((l) => inkOf(once, l.style.fill!, l));
  expect(inks).toMatchObject([{ kind: 'linear', stops: [{ colour: '#ff0000' }, { colour: '#0000ff' }] }, '#228833']);
  // The same once more adds none.
  const twice = brought(once);
  expect([twice.gradients, twice.palette]).toEqual([once.gradients, once.palette]);
  expect(allLines(twice)).toHaveLength(4);
});
