import { linesOf } from '../drawing/items';
import { wanderingDrawing } from '../test/drawings';
import { colourDistance } from '../colour/colour';
import { alikeTo, type Likeness } from './alike';
import { cornerAt } from '../drawing/run';
import type { Drawing, Line, Style } from '../drawing/schema';

const base = wanderingDrawing(8, 2, 3);
const style = (of: Line, part: Partial<Style>): Line => ({
  ...of,
  style: { ...of.style, stroke: '#202020', fill: null, width: 2, ...part },
});
/** l0 and l4 on the first sheet, l1 and l5 on the second. */
const lines: Record<string, (l: Line) => Line> = {
  l0: (l) => style(l, {}),
  l4: (l) => style(l, { width: 2.3 }),
  l1: (l) => style(l, { stroke: '#2a2020' }),
  l5: (l) => ({
    ...style(l, { fill: '#ff0000' }),
    runs: [{ closed: true, nodes: [cornerAt({ x: 0, y: 0 }), cornerAt({ x: 9, y: 0 })] }],
  }),
};
const d: Drawing = {
  ...base,
  sheets: base.sheets.slice(0, 2).map((s) => ({
    ...s,
    items: linesOf(s).map((l) => ({
      ...lines[l.id](l),
      runs: lines[l.id](l).runs.map((r) => ({ ...r, closed: l.id === 'l5' })),
    })),
  })),
};
const alike = (like: Likeness, of = ['l0']): string => alikeTo(d, of, like).sort().join(' ');

describe('choosing alike', () => {
  it.each<[Likeness, string]>([
    [{ width: { within: 0.1 } }, 'l0 l1 l5'],
    [{ width: { within: 0.5 } }, 'l0 l1 l4 l5'],
    [{ colour: { within: 0 } }, 'l0 l4 l5'],
    [{ colour: { within: 10 } }, 'l0 l1 l4 l5'],
    [{ fill: { within: 0 } }, 'l0 l1 l4'],
    [{ sheet: true }, 'l0 l4'],
    [{ kind: true }, 'l0 l1 l4'],
    [{ closed: true }, 'l0 l1 l4'],
    [{ width: { within: 0.1 }, sheet: true }, 'l0'],
  ])('by %j', (like, wanted) => {
    expect(alike(like)).toBe(wanted);
  });

  it('to any of several, and never on a sheet that is locked', () => {
    expect(alike({ width: { within: 0.1 }, closed: true }, ['l4', 'l5'])).toBe('l4 l5');
    const locked = { ...d, sheets: d.sheets.map((s, i) => (i === 1 ? { ...s, locked: true } : s)) };
    expect(alikeTo(locked, ['l0'], { colour: { within: 255 } })).toEqual(['l0', 'l4']);
  });

  it('colours differ by their worst channel', () => {
    expect(colourDistance('#102030', '#0f2a30')).toBe(10);
  });
});
