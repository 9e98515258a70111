import { applyChange, inverseOf } from '../change/apply';
import { findItem } from '../drawing/find';
import { linesOf } from '../drawing/items';
import { wanderingDrawing } from '../test/drawings';
import { groupLines } from './arrange';
import { nameItem } from './names';

test('lines and groups are named, and a line without a name is as before there were any', () => {
  const d = wanderingDrawing(12, 2, 4);
  const ids = linesOf(d.sheets[0]).map((l) => l.id);
  const grouped = applyChange(d, { id: 'g', ...groupLines(d, new Set(ids.slice(0, 2)), 'both') });
  const change = { id: 'n', ...nameItem(grouped, ids[2], 'Stem') };
  const named = applyChange(grouped, change);
  expect(findItem(named, ids[2])!.item.name).toBe('Stem');
  expect(JSON.stringify(applyChange(named, inverseOf(change, 'u', 'Undo')))).toBe(JSON.stringify(grouped));
  const plain = applyChange(named, { id: 'p', ...nameItem(named, ids[2], '') });
  expect(JSON.stringify(plain)).toBe(JSON.stringify(grouped));
  expect(findItem(applyChange(grouped, { id: 'm', ...nameItem(grouped, 'both', 'Leaves') }), 'both')!.item.name).toBe(
    'Leaves',
  );
  expect(nameItem(d, 'gone', 'x').steps).toEqual([]);
  expect(nameItem(named, ids[2], 'Stem').steps).toEqual([]);
});
