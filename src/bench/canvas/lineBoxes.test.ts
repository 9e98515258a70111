import fc from 'fast-check';
import type { Line } from '@/core';
import { controlBox, movedRuns } from '@/core/drawing/run';
import { seeded } from '@/core/seeded';
import { levelLine } from '@/core/test/levelLines';
import { LineBoxes } from './lineBoxes';

const lines: Line[] = Array.from({ length: 600 }, (_, i) => movedLine(levelLine(`l${i}`, 10), (i % 30) * 40, i));

function movedLine(line: Line, x: number, y: number): Line {
  return { ...line, runs: movedRuns(line.runs, { x, y }) };
}

type Lists = Map<string, readonly Line[]>;

/** What may become of the lines of a sheet. */
const deeds: Record<string, (list: readonly Line[], random: () => number) => readonly Line[]> = {
  'all moved': (list, random) => list.map((l) => movedLine(l, 500 * (random() - 0.5), 90)),
  'half moved': (list, random) => list.map((l) => (random() < 0.5 ? movedLine(l, 70, -40) : l)),
  'one moved': (list) => list.map((l, i) => (i === 7 ? movedLine(l, 300, 300) : l)),
  'some gone': (list, random) => list.filter(() => random() < 0.9),
  'most gone': (list) => list.slice(0, 20),
  'one gone': (list) => list.filter((_, i) => i !== 3),
  'all back': () => lines,
  'turned round': (list) => [...list].reverse(),
  restyled: (list) => list.map((l) => ({ ...l, style: { ...l.style, width: 9 } })),
};

test('whatever becomes of the lines, a search finds those whose boxes meet a box', () => {
  const named = fc.constantFrom(...Object.keys(deeds));
  fc.assert(
    fc.property(fc.array(fc.tuple(named, named), { maxLength: 6 }), fc.nat(1000), (rounds, seed) => {
      const random = seeded(seed);
      const boxes = new LineBoxes();
      let lists: Lists = new Map([
        ['a', lines.slice(0, 400)],
        ['b', lines.slice(400)],
      ]);
      for (const [forA, forB] of [['', ''] as const, ...rounds]) {
        const [a, b] = [lists.get('a')!, lists.get('b')!];
        const next = deeds[forA]?.(a, random) ?? a;
        const own = new Set(next.map((l) => l.id));
        const rest = (deeds[forB]?.(b, random) ?? b).filter((l) => !own.has(l.id));
        lists = new Map([
          ['a', next],
          ['b', rest],
          [`empty${seed % 2 ? rest.length : ''}`, []],
        ]);
        boxes.follow(lists);
        for (let i = 0; i < 5; i++) {
          const [x, y] = [random() * 1400 - 100, random() * 800 - 100];
          const box = { minX: x, minY: y, maxX: x + 120, maxY: y + 90 };
          const meets = (l: Line): boolean => {
            const c = controlBox(l);
            return c.minX <= box.maxX && c.maxX >= box.minX && c.minY <= box.maxY && c.maxY >= box.minY;
          };
          const all = [...next, ...rest];
          const found = boxes.search(box).map((e) => e.line);
          expect(new Set(found)).toEqual(new Set(all.filter(meets)));
          expect(found.length).toBe(new Set(found).size);
        }
        const all = new Map([...next, ...rest].map((l) => [l.id, l]));
        expect(lines.filter(({ id }) => boxes.entryOf(id)?.line !== all.get(id))).toEqual([]);
      }
    }),
    { numRuns: 40 },
  );
});
