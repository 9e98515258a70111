import fc from 'fast-check';
import { groupOf, wanderingDrawing } from '../test/drawings';
import type { Drawing } from '../drawing/schema';
import { differencesOf } from './differences';

const ids = (list: readonly { id: string }[]): string[] => list.map((x) => x.id).sort();

test('what was added, what is gone, what changed: turned about the other way', () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom('keep', 'drop', 'change', 'add', 'group'), { minLength: 1, maxLength: 12 }),
      (deeds) => {
        const then = wanderingDrawing(deeds.length, 2, 7);
        const expected = { added: [] as string[], gone: [] as string[], changed: [] as string[] };
        let n = 0;
        const now: Drawing = {
          ...then,
          sheets: then.sheets.map((s) => ({
            ...s,
            items: s.items.flatMap((item) => {
              const deed = deeds[n++ % deeds.length];
              if (deed === 'drop') return (expected.gone.push(item.id), []);
              if (deed === 'change') return (expected.changed.push(item.id), [{ ...item, name: 'Other' }]);
              if (deed === 'add')
                return (expected.added.push(`${item.id}-new`), [item, { ...item, id: `${item.id}-new` }]);
              // A group is no thing of its own, and what is the same is the same whatever object it is.
              return deed === 'group'
                ? [groupOf(`g${item.id}`, JSON.parse(JSON.stringify(item)) as typeof item)]
                : [item];
            }),
          })),
        };
        const found = differencesOf(then, now);
        expect(ids(found.added)).toEqual(expected.added.sort());
        expect(ids(found.gone)).toEqual(expected.gone.sort());
        expect(ids(found.changed.map(([, is]) => is))).toEqual(expected.changed.sort());
        const back = differencesOf(now, then);
        expect([ids(back.gone), ids(back.added)]).toEqual([ids(found.added), ids(found.gone)]);
      },
    ),
  );
});

test('what is painted with a swatch changes with it', () => {
  const plain = wanderingDrawing(3, 2, 7);
  const inked: Drawing = {
    ...plain,
    palette: [{ id: 'leaf', name: 'Leaf', colour: '#2a9d8f' }],
    sheets: plain.sheets.map((s) => ({
      ...s,
      items: s.items.map((item) =>
        item.id === 'l1' && item.kind === undefined
          ? { ...item, style: { ...item.style, stroke: { swatch: 'leaf' } } }
          : item,
      ),
    })),
  };
  const then = { ...inked, palette: [{ id: 'leaf', name: 'Leaf', colour: '#d1495b' }] };
  expect(ids(differencesOf(then, inked).changed.map(([, is]) => is))).toEqual(['l1']);
  const renamed = { ...inked, palette: [{ id: 'leaf', name: 'Fern', colour: '#2a9d8f' }] };
  expect(differencesOf(renamed, inked).changed).toEqual([]);
});
