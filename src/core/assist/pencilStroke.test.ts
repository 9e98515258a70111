import { cubicAt } from '../index';
import { seeded } from '../seeded';
import { distance } from '../geometry/point';
import { cubicsOfStroke, endsDrawnTo, runOfStroke } from './pencilStroke';

const random = seeded(4);
const arc = Array.from({ length: 120 }, (_, i) => {
  const a = (Math.PI * i) / 119;
  return { x: 100 - 80 * Math.cos(a) + random() - 0.5, y: 100 - 80 * Math.sin(a) + random() - 0.5 };
});

test('a stroke becomes few cubics near the hand; a wider tolerance no more', () => {
  const fine = cubicsOfStroke({ points: arc, closed: false }, 1)!;
  const rough = cubicsOfStroke({ points: arc, closed: false }, 4)!;
  expect(fine.length).toBeLessThanOrEqual(4);
  expect(rough.length).toBeLessThanOrEqual(fine.length);
  for (const c of fine)
    for (const t of [0.2, 0.5, 0.8])
      expect(Math.abs(distance(cubicAt(c, t), { x: 100, y: 100 }) - 80)).toBeLessThan(1.2);
});

test('repeated places are taken once, and a press that never moved is nothing', () => {
  const twice = arc.flatMap((p) => [p, p]);
  expect(cubicsOfStroke({ points: twice, closed: false }, 2)).toEqual(
    cubicsOfStroke({ points: arc, closed: false }, 2),
  );
  expect(cubicsOfStroke({ points: [arc[0], arc[0]], closed: false }, 2)).toBeNull();
});

test('a stroke that came back is closed, and its seam is not a corner', () => {
  const ring = Array.from({ length: 200 }, (_, i) => {
    const a = (2 * Math.PI * i) / 199;
    return { x: 60 * Math.cos(a) + random() * 0.6, y: 60 * Math.sin(a) + random() * 0.6 };
  });
  const run = runOfStroke(cubicsOfStroke({ points: ring, closed: true }, 2)!, true);
  expect(run.closed).toBe(true);
  expect(run.nodes.every((n) => n.kind === 'smooth')).toBe(true);
});

test('ends are drawn to their places, and what lies further off stays', () => {
  const [start, end] = [
    { x: 17, y: 103 },
    { x: 181, y: 96 },
  ];
  const drawn = endsDrawnTo(arc, start, end, 3);
  expect([drawn[0], drawn.at(-1)]).toEqual([
    { x: expect.closeTo(17), y: expect.closeTo(103) },
    { x: expect.closeTo(181), y: expect.closeTo(96) },
  ]);
  expect(drawn[60]).toEqual(arc[60]);
  drawn.slice(1).forEach((p, i) => expect(distance(p, drawn[i])).toBeLessThan(5));
  expect(endsDrawnTo(arc, null, null, 3)).toEqual(arc);
});
