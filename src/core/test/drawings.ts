import {
  emptyDrawing,
  firstStyle,
  plainPage,
  type Drawing,
  type Line,
  type Node,
  type NodeKind,
  type Run,
} from '../drawing/schema';
import type { Group, Item } from '../drawing/item';
import { pointOnGrid } from '../drawing/grid';
import { point } from '../geometry/point';
import { seeded } from '@/core/seeded';

/** Made-up drawings for tests and benchmarks, the same for the same seed. */

export const testPage = plainPage({ width: 1000, height: 700, unit: 'mm', dpi: 300, ground: '#fffefb' });

const kinds: NodeKind[] = ['corner', 'smooth', 'even', 'flowing'];

/** A wandering line of `segments` segments that stays within about `reach` units of its start. */
export function wanderingLine(
  id: string,
  segments: number,
  random: () => number,
  width = 1000,
  height = 700,
  reach = 60,
): Line {
  let [x, y] = [random() * width, random() * height];
  let angle = random() * 7;
  const nodes = Array.from({ length: segments + 1 }, (): Node => {
    const here = point(x, y);
    const step = (reach / segments) * (0.5 + random());
    angle += (random() - 0.5) * 1.6;
    const out = point(Math.cos(angle) * step * 0.4, Math.sin(angle) * step * 0.4);
    x += Math.cos(angle) * step;
    y += Math.sin(angle) * step;
    const [at, to] = [pointOnGrid(here), pointOnGrid(out)];
    return { point: at, in: point(0 - to.x, 0 - to.y), out: to, kind: 'smooth' };
  });
  return { id, style: { ...firstStyle, width: 0.8 + random() * 3 }, runs: [{ closed: random() < 0.3, nodes }] };
}

/** A drawing of `count` wandering lines on four sheets. */
export function wanderingDrawing(count: number, segments: number, seed: number): Drawing {
  const random = seeded(seed);
  const empty = emptyDrawing(testPage, { id: 's0', name: 'Sheet 1', tag: '#8f2d63' });
  const sheets = [0, 1, 2, 3].map((k) => ({
    ...empty.sheets[0],
    id: `s${k}`,
    name: `Sheet ${k + 1}`,
    items: [] as Line[],
  }));
  for (let i = 0; i < count; i++) sheets[i % 4].items.push(wanderingLine(`l${i}`, segments, random));
  return { ...empty, sheets };
}

/** A group of some items. */
export const groupOf = (id: string, ...items: Item[]): Group => ({ kind: 'group', id, name: '', items });

/** A run with nodes of all kinds, some without handles. */
export function mixedRun(seed: number, count: number, closed: boolean): Run {
  const random = seeded(seed);
  const offset = () => (random() < 0.25 ? null : point(random() * 60 - 30, random() * 60 - 30));
  const nodes = Array.from({ length: count }, (_, i): Node => ({
    point: point(i * 40 + random() * 20, random() * 200),
    in: offset(),
    out: offset(),
    kind: kinds[Math.floor(random() * 2)],
  }));
  return { closed, nodes };
}
