import { noteOf, type Note } from '@/core/check/note';
import { flagsOf } from './noteFlags';

const at = (x: number, y: number): Note => noteOf('kink', { id: `${x} ${y}` }, { x, y });
const window = { width: 800, height: 600 };

test('notes that lie close on what is seen are one flag; nearer by, they come apart', () => {
  const notes = [at(100, 100), at(110, 104), at(104, 96), at(300, 300)];
  expect(flagsOf(notes, { x: 0, y: 0, scale: 1 }, window)).toEqual([
    { at: { x: 100, y: 100 }, count: 3 },
    { at: { x: 300, y: 300 }, count: 1 },
  ]);
  expect(flagsOf(notes.slice(0, 3), { x: -800, y: -800, scale: 10 }, window).map((f) => f.count)).toEqual([1, 1, 1]);
});

test('none is lost in a crowd, and no crowd of flags hides the drawing; what is out of sight has none', () => {
  const many = Array.from({ length: 900 }, (_, i) => at((i % 30) * 20, Math.floor(i / 30) * 15));
  const flags = flagsOf(many, { x: 0, y: 0, scale: 1 }, window);
  expect(flags.length).toBeLessThanOrEqual(120);
  const all = flagsOf(many.slice(0, 300), { x: 0, y: 0, scale: 0.5 }, window);
  expect(all.reduce((n, f) => n + f.count, 0)).toBe(300);
  expect(flagsOf([at(5000, 5000)], { x: 0, y: 0, scale: 1 }, window)).toEqual([]);
});
