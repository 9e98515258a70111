import fc from 'fast-check';
import { groupOf, wanderingDrawing } from '../test/drawings';
import type { Drawing } from './schema';
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
