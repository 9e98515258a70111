import { cubicLength, pullInk, splitCubic, type Cubic, type Drawing, type GrayImage, type Point } from '../src/core';
import { applyChange } from '../src/core/change/apply';
import { findNotes } from '../src/core/check/findNotes';
import { measureLine } from '../src/core/check/lineDistance';
import { noteKinds, type NoteKind } from '../src/core/check/note';
import { runFromCubics } from '../src/core/drawing/fromCubics';
import { linesOf } from '../src/core/drawing/items';
import { emptyDrawing, firstStyle, plainPage } from '../src/core/drawing/schema';
import { fixAll } from '../src/core/edits/fix/fixNote';
import { inkJudge } from '../src/core/edits/fix/inkJudge';
import { reversed } from '../src/core/geometry/cubic';
import type { CubicRun } from '../src/core/geometry/along';
import { seeded } from '../src/core/seeded';
import { laidReference } from '../src/core/test/laidReference';
import type { Sketch } from './sketches';

const REACH = 12;
/** A line that lies this much further from its ink over the best 95 % of it is worse, px. */
const WORSE = 0.1;

/** What *Fix all* of each kind in turn did: how many notes there were and are left, and which lines lie worse for it. */
export type FixFigures = {
  readonly kinds: Partial<Record<NoteKind, { notes: number; left: number }>>;
  /** The share of gaps and overhangs that were put right, 0…1. */
  readonly met: number;
  readonly worse: string[];
};

/** Fixes all kinds of notes in turn on lines laid over a picture, and measures every line before and after. */
export function measureFix(image: GrayImage, runs: readonly CubicRun[]): FixFigures {
  let d = drawingOf(image, runs);
  const [r] = d.references;
  const distances = (): Map<string, number> =>
    new Map(linesOf(d.sheets[0]).map((l) => [l.id, measureLine(l, r, image, REACH).distance.p95]));
  const kinds: FixFigures['kinds'] = {};
  const worse: string[] = [];
  for (const kind of noteKinds) {
    const notes = findNotes(d).filter((n) => n.kind === kind);
    if (notes.length === 0) continue;
    const before = distances();
    const { edit, left } = fixAll(d, notes, 'Fix', undefined, inkJudge(d, new Map([[r.id, image]]), REACH));
    d = applyChange(d, { id: 'fix', ...edit });
    kinds[kind] = { notes: notes.length, left: left.length };
    for (const [id, p95] of distances())
      if (p95 > before.get(id)! + WORSE)
        worse.push(`${id}, ${kind}: ${before.get(id)!.toFixed(2)} to ${p95.toFixed(2)}`);
  }
  const [gap, overhang] = [kinds.gap, kinds.overhang].map((k) => k ?? { notes: 0, left: 0 });
  return { kinds, worse, met: 1 - (gap.left + overhang.left) / Math.max(1, gap.notes + overhang.notes) };
}

/** The lines pulled from a sketch's ink, with every open end cut short by up to 5 px: they meet nothing any more. */
export function shortRuns({ image }: Sketch, seed: number): CubicRun[] {
  const random = seeded(seed);
  const short = (c: Cubic): Cubic => {
    const length = cubicLength(c);
    return length < 12 ? c : splitCubic(c, 1 - (1 + 4 * random()) / length)[0];
  };
  return pullInk(image, { tolerance: 0.8, mode: 'centre', minimumLength: 8 }).map(({ cubics, closed }) => {
    if (closed) return { cubics, closed };
    const list = [...cubics];
    list[list.length - 1] = short(list.at(-1)!);
    list[0] = reversed(short(reversed(list[0])));
    return { cubics: list, closed };
  });
}

/** The true lines as a hurried hand would trace them: off by some px, nodes too many, ends short, handles wild. */
export function hurriedRuns({ lines, scale }: Sketch, seed: number): CubicRun[] {
  const random = seeded(seed);
  return lines.map((l) => {
    const truth = l.cubics.map((c) => c.map((p) => ({ x: p.x * scale, y: p.y * scale })) as Cubic);
    return hurried(truth, l.closed, random);
  });
}

function hurried(truth: readonly Cubic[], closed: boolean, random: () => number): CubicRun {
  const split = truth.flatMap((c) => (random() < 0.4 ? splitCubic(c, 0.3 + 0.4 * random()) : [c]));
  const offset = (by: number): Point => {
    const [angle, length] = [2 * Math.PI * random(), by * random()];
    return { x: length * Math.cos(angle), y: length * Math.sin(angle) };
  };
  const offs = Array.from({ length: split.length + 1 }, () => offset(2.5));
  if (closed) offs[split.length] = offs[0];
  const sum = (...points: Point[]): Point => points.reduce((a, b) => ({ x: a.x + b.x, y: a.y + b.y }));
  const cubics = split.map(([a, b, c, e], i): Cubic => {
    const reach = random() < 0.04 ? 2.5 : 1;
    const out = { x: a.x + (b.x - a.x) * reach, y: a.y + (b.y - a.y) * reach };
    return [sum(a, offs[i]), sum(out, offs[i], offset(2.5)), sum(c, offs[i + 1], offset(2.5)), sum(e, offs[i + 1])];
  });
  if (closed && random() < 0.5)
    return { cubics: [...cubics.slice(0, -1), splitCubic(cubics.at(-1)!, 0.93)[0]], closed: false };
  if (!closed && random() < 0.5) cubics[0] = splitCubic(cubics[0], 0.05)[1];
  return { cubics, closed };
}

/** Runs over a picture of their size, each a line of its own. */
export function drawingOf(image: GrayImage, runs: readonly CubicRun[]): Drawing {
  const page = plainPage({ width: image.width, height: image.height, unit: 'px', dpi: 96, ground: null });
  const empty = emptyDrawing(page, { id: 's', name: 'S', tag: '#446688' });
  const items = runs.map((run, i) => ({
    id: `l${i}`,
    style: firstStyle,
    runs: [runFromCubics(run.cubics, run.closed)],
  }));
  return {
    ...empty,
    references: [laidReference(page, image.width, image.height)],
    sheets: [{ ...empty.sheets[0], items }],
  };
}
