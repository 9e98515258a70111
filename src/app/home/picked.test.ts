import { pickedAfter } from './picked';

const shown = ['a', 'b', 'c', 'd', 'e'];
const after = (picked: string, id: string, last: string | null, through: boolean): string =>
  [...pickedAfter(new Set(picked), shown, id, last, through)].sort().join('');

test('a press turns one; with Shift all from the last press on, forwards and back', () => {
  expect(after('', 'b', null, false)).toBe('b');
  expect(after('bd', 'b', 'd', false)).toBe('d');
  expect(after('b', 'd', 'b', true)).toBe('bcd');
  expect(after('d', 'a', 'd', true)).toBe('abcd');
  expect(after('abcd', 'c', 'a', true)).toBe('d');
  // What was pressed last is no longer shown: only what is pressed now counts.
  expect(after('b', 'd', 'x', true)).toBe('bd');
});
