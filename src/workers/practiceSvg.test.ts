import { allLines } from '@/core/drawing/items';
import { readSvg } from '@/core/formats/svg/readSvg';
import { practiceSvg } from './practiceSvg';

test('what is practised on is read whole, and has of everything that lines are made of', () => {
  const { drawing, dropped } = readSvg(practiceSvg(100));
  const lines = allLines(drawing);
  const nodes = lines.flatMap((l) => l.runs.flatMap((r) => r.nodes));
  expect(dropped).toEqual([]);
  expect(lines).toHaveLength(100);
  expect(drawing.sheets[0].name).toBe('Lines');
  const kinds = <T>(of: readonly T[]): T[] => [...new Set(of)].sort();
  expect(kinds(nodes.map((n) => n.kind))).toEqual(['corner', 'smooth']);
  expect(kinds(nodes.map((n) => n.in === null))).toEqual([false, true]);
  expect(kinds(lines.map((l) => l.runs[0].closed))).toEqual([false, true]);
  expect(kinds(lines.map((l) => l.style.fill === null))).toEqual([false, true]);
  expect(nodes.some((n) => n.point.x < 0 || n.point.y < 0)).toBe(true);
});
