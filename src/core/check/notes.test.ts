import { linesOf } from '../drawing/items';
import {
  applyChange,
  emptyDrawing,
  firstStyle,
  plainPage,
  type Drawing,
  type Node,
  type Point,
  type Run,
} from '@/core';
import { waveThrough, unwave } from '../edits/notes';
import { cornerAt } from '../drawing/run';
import { findingNotes, findNotes, gathered } from './findNotes';
import { fixAll, fixNote } from '../edits/fix/fixNote';
import { noteLimits, openNotes, type Note, type NoteKind } from './note';
import { wanderingDrawing } from '../test/drawings';

const p = (x: number, y: number): Point => ({ x, y });
const open = (...nodes: Node[]): Run => ({ closed: false, nodes });
const straight = (...points: Point[]): Run => open(...points.map(cornerAt));
const smooth = (at: Point, direction: Point): Node => ({
  point: at,
  in: p(-direction.x, -direction.y),
  out: direction,
  kind: 'smooth',
});

function drawing(runs: Run[], width = 1): Drawing {
  const d = emptyDrawing(plainPage({ width: 500, height: 400, unit: 'px', dpi: 96, ground: null }), {
    id: 's',
    name: 'Sheet',
    tag: '#3366aa',
  });
  const lines = runs.map((run, i) => ({ id: `l${i}`, style: { ...firstStyle, width }, runs: [run] }));
  return { ...d, sheets: [{ ...d.sheets[0], items: lines }] };
}

const kindsIn = (d: Drawing): NoteKind[] => findNotes(d).map((n) => n.kind);
const apply = (d: Drawing, e: ReturnType<typeof fixNote>): Drawing => applyChange(d, { id: 'c', ...e });
const runsOf = (d: Drawing): Run[] => linesOf(d.sheets[0]).flatMap((l) => l.runs);

const wrong: Record<NoteKind, Run[]> = {
  gap: [straight(p(20, 20), p(100, 20)), straight(p(103, 22), p(180, 90))],
  overhang: [straight(p(50, 20), p(50, 120)), straight(p(54, 60), p(10, 60))],
  kink: [
    open(
      { point: p(20, 50), in: null, out: p(20, -20), kind: 'corner' },
      { point: p(80, 50), in: p(-20, -5), out: p(20, 9), kind: 'corner' },
      { point: p(140, 50), in: p(-20, 20), out: null, kind: 'corner' },
    ),
  ],
  crumb: [straight(p(20, 20), p(21, 21))],
  doubled: [straight(p(20, 20), p(150, 60)), straight(p(20.3, 20.4), p(149, 60))],
  stray: [straight(p(60, 60))],
  needless: [straight(p(20, 20), p(60, 20), p(100, 20))],
  wild: [
    open(
      { point: p(50, 50), in: null, out: p(140, 3), kind: 'corner' },
      { point: p(90, 52), in: p(-8, 0), out: null, kind: 'corner' },
    ),
  ],
  crossing: [straight(p(20, 20), p(200, 20), p(200, 40), p(190, 40), p(190, 10), p(300, 100))],
  outside: [straight(p(450, 100), p(560, 100))],
};

test.each(Object.entries(wrong))('a %s is found, and gone once it is put right', (kind, runs) => {
  const d = drawing(runs);
  const notes = findNotes(d).filter((n) => n.kind === kind);
  expect(notes).toHaveLength(1);
  const fixed = apply(d, fixNote(d, notes[0]));
  expect(fixed).not.toBe(d);
  expect(kindsIn(fixed)).not.toContain(kind);
});

test('a clean drawing has no notes', () => {
  const d = drawing([
    straight(p(20, 20), p(100, 20), p(100, 90)),
    straight(p(100, 90), p(200, 150)),
    open(smooth(p(250, 50), p(20, 10)), smooth(p(330, 120), p(10, 30)), smooth(p(300, 220), p(-30, 20))),
  ]);
  expect(kindsIn(d)).toEqual([]);
});

test('fixes do what they say', () => {
  const gap = drawing(wrong.gap);
  const [one, two] = runsOf(apply(gap, fixNote(gap, findNotes(gap)[0])));
  expect(one.nodes.at(-1)!.point).toEqual(two.nodes[0].point);
  expect(one.nodes.at(-1)!.point.y).toBeCloseTo(20, 9);
  const overhang = drawing(wrong.overhang);
  expect(runsOf(apply(overhang, fixNote(overhang, findNotes(overhang)[0])))[1].nodes[0].point.x).toBeCloseTo(50, 5);
  const loop = drawing(wrong.crossing);
  expect(runsOf(apply(loop, fixNote(loop, findNotes(loop)[0])))[0].nodes.map((n) => Math.round(n.point.x))).toEqual([
    20, 190, 190, 300,
  ]);
  const out = drawing(wrong.outside);
  expect(runsOf(apply(out, fixNote(out, findNotes(out)[0])))[0].nodes.at(-1)!.point.x).toBeCloseTo(500, 6);
  const kink = drawing(wrong.kink);
  expect(runsOf(apply(kink, fixNote(kink, findNotes(kink)[0])))[0].nodes[1].kind).toBe('smooth');
});

test('a line that closes but for a little is closed; one whole line off the page is deleted', () => {
  const ring = drawing([straight(p(50, 50), p(150, 50), p(150, 150), p(50, 53))]);
  const [note] = findNotes(ring).filter((n) => n.kind === 'gap');
  expect(note.lines).toEqual(['l0']);
  expect(runsOf(apply(ring, fixNote(ring, note)))[0].closed).toBe(true);
  const away = drawing([straight(p(600, 50), p(700, 50)), straight(p(10, 10), p(90, 30))]);
  expect(linesOf(apply(away, fixNote(away, findNotes(away)[0])).sheets[0]).map((l) => l.id)).toEqual(['l1']);
});

test('all of a kind are put right in one change', () => {
  const many = straight(...Array.from({ length: 9 }, (_, i) => p(20 + 30 * i, 200)));
  const d = drawing([many, straight(p(20, 20), p(60, 20), p(100, 20))]);
  const notes = findNotes(d);
  expect(notes.every((n) => n.kind === 'needless')).toBe(true);
  let now = apply(d, fixAll(d, notes, 'Fix needless nodes').edit);
  for (let i = 0; i < 3; i++) now = apply(now, fixAll(now, findNotes(now), 'Fix needless nodes').edit);
  expect(runsOf(now).map((r) => r.nodes.length)).toEqual([2, 2]);
});

test('what is waved through stays away, until it is asked for again or changes', () => {
  const d = drawing(wrong.gap);
  const notes = findNotes(d);
  const waved = applyChange(d, { id: 'w', ...waveThrough(d, notes) });
  expect(openNotes(waved, findNotes(waved))).toEqual([]);
  expect(
    openNotes(
      waved,
      findNotes(waved).map((n) => ({ ...n, key: 'elsewhere' })),
    ),
  ).toHaveLength(1);
  const again = applyChange(waved, { id: 'u', ...unwave(waved) });
  expect(openNotes(again, findNotes(again))).toHaveLength(1);
});

test('looked for in shares, the same is found', () => {
  for (const seed of [1, 2, 3]) {
    const d = wanderingDrawing(60, 5, seed);
    const found = [0, 1, 2].flatMap((take): Note[] => {
      const finding = findingNotes(d, noteLimits, { of: 3, take });
      for (;;) {
        const step = finding.next();
        if (step.done) return step.value;
      }
    });
    const whole = findNotes(d);
    expect(whole.length).toBeGreaterThan(30);
    expect(gathered(d, found)).toEqual(whole);
  }
});
