import {
  emptyDrawing,
  firstStyle,
  freshSheet,
  plainPage,
  type Cubic,
  type Drawing,
  type Line,
  type Node,
  type Point,
  type Sheet,
} from '../src/core';
import { tagColours } from '../src/core/edits/sheets';
import { fromUnit } from '../src/core/drawing/unit';
import { subtract } from '../src/core/geometry/point';
import { seeded } from '../src/core/seeded';
import { pearLines, pearPage } from '../src/server/simulated/curves/pear';
import type { TrueLine } from '../src/server/simulated/curves/path';

/** The pear drawing as someone left it at lunch: outline, stem and one leaf are traced, the rest is still to do. */
export function partlyTracedPear(): Drawing {
  const [width, height] = [fromUnit(148, 'mm'), fromUnit(210, 'mm')];
  const k = width / pearPage.width;
  const random = seeded(12);
  const traced = ['Stem and twig', 'Leaf, right', 'Pear outline'];
  const names = ['Speckles', 'Pear outline', 'Leaf veins', 'Leaf, left', 'Leaf, right', 'Stem and twig'];
  const widths: Record<string, number> = { 'Pear outline': 3.4, 'Stem and twig': 3, 'Leaf, right': 2.6667 };
  const first = emptyDrawing(plainPage({ width, height, unit: 'mm', dpi: 300, ground: '#fffefb' }), {
    id: 'none',
    name: '',
    tag: tagColours[0],
  });
  const sheets = names.map((name, i): Sheet => {
    const style = { ...firstStyle, width: widths[name] ?? firstStyle.width };
    const own = traced.includes(name) ? pearLines.filter((l) => l.part === name) : [];
    return {
      ...freshSheet(`sheet-${i + 1}`, name, tagColours[[5, 0, 4, 1, 4, 2][i]], style),
      locked: name === 'Stem and twig',
      state: traced.includes(name) ? (name === 'Pear outline' ? 'working' : 'traced') : 'to do',
      items: own.map((l, j): Line => ({
        id: `line-${i + 1}-${j + 1}`,
        style: { ...style, width: style.width * (l.width < 8 ? 0.75 : 1) },
        runs: [runBy(l, k, random)],
      })),
    };
  });
  return { ...first, sheets };
}

/** A true line as a hand traced it: each node off by a hair, handles along. */
function runBy(line: TrueLine, k: number, random: () => number): { closed: boolean; nodes: Node[] } {
  const off = (): Point => ({ x: (random() - 0.5) * 1.3, y: (random() - 0.5) * 1.3 });
  const { cubics, closed } = line;
  const scaled = cubics.map((c) => c.map((p) => ({ x: p.x * k, y: p.y * k })) as Cubic);
  const count = closed ? scaled.length : scaled.length + 1;
  const nodes = Array.from({ length: count }, (_, i): Node => {
    const before = scaled[i - 1] ?? (closed ? scaled.at(-1) : undefined);
    const after = scaled[i];
    const at = (after ?? before)![after ? 0 : 3];
    const into = before ? subtract(before[2], at) : null;
    const out = after ? subtract(after[1], at) : null;
    const isSmooth =
      into &&
      out &&
      Math.abs(into.x * out.y - into.y * out.x) < 0.02 * Math.hypot(into.x, into.y) * Math.hypot(out.x, out.y);
    const by = off();
    return { point: { x: at.x + by.x, y: at.y + by.y }, in: into, out, kind: isSmooth ? 'smooth' : 'corner' };
  });
  return { closed, nodes };
}
