import { allLines, isGroup, linesOf } from '@/core/drawing/items';
import { readSvg, type Line, type Point } from '@/core';
import { setSheet } from '@/core/edits/sheets';
import { skeletonBox } from '@/core/drawing/run';
import { clippingOf } from '@/core/formats/clipping';
import { wanderingDrawing } from '@/core/test/drawings';
import { copied, cut, paste } from './clipboard';

let pasted = 0;
jest.mock('../state/readingClipping', () => ({
  readingClipping: (text: string, kept: string | null, at: Point | null) =>
    Promise.resolve().then(() => clippingOf(text, kept, at, () => `pasted${++pasted}`)),
}));
import { loupeMiddle } from '../canvas/pageLoupe';
import * as act from './lines';
import { firstPreferences, prefer } from '../state/preferences';
import type { Bench } from '../state/store';
import { keepLastSeen } from '../state/lastSeen';
import { LAST_SEEN } from '../state/localKeys';
import { benchWith } from '../test/hand';
import { TestStorage } from '../test/storage';

/** Twelve open lines on four sheets, three each. */
const drawing = (() => {
  const d = wanderingDrawing(12, 3, 21);
  return {
    ...d,
    sheets: d.sheets.map((s) => ({
      ...s,
      items: linesOf(s).map((l) => ({ ...l, runs: l.runs.map((r) => ({ ...r, closed: false })) })),
    })),
  };
})();
const lines = (b: Bench): Line[] => allLines(b.getState().drawing);
const chosen = (b: Bench): string[] => [...b.getState().lines].sort();

beforeEach(() => prefer(firstPreferences));

describe('choosing', () => {
  it('all, none, the others: only what can be touched', () => {
    const bench = benchWith(drawing);
    bench.commit(setSheet(drawing, 's3', { locked: true }, 'Lock'));
    act.chooseAll(bench);
    expect(chosen(bench)).toHaveLength(9);
    bench.choose(['l0', 'l1']);
    act.invertChoice(bench);
    expect(chosen(bench)).toHaveLength(7);
    expect(chosen(bench)).not.toContain('l0');
    bench.setState({ solo: 's1' });
    act.chooseAll(bench);
    expect(chosen(bench)).toEqual(['l1', 'l5', 'l9']);
    act.chooseNone(bench);
    expect(chosen(bench)).toEqual([]);
  });

  it('alike, by what is ticked', () => {
    const bench = benchWith(drawing);
    prefer({ alike: { ...firstPreferences.alike, width: false, colour: false, sheet: true } });
    bench.choose(['l2']);
    act.chooseAlike(bench);
    expect(chosen(bench)).toEqual(['l10', 'l2', 'l6']);
    bench.choose([]);
    act.chooseAlike(bench);
    expect(bench.getState().message?.text).toMatch(/Choose a line first/);
  });
});

describe('arranging', () => {
  it('groups on one sheet, and says why not on several', () => {
    const bench = benchWith(drawing);
    bench.choose(['l0', 'l4']);
    act.group(bench);
    const grouped = () => bench.getState().drawing.sheets.flatMap((s) => s.items.filter(isGroup));
    expect(grouped().map((g) => g.items.length)).toEqual([2]);
    act.ungroup(bench);
    expect(grouped()).toEqual([]);
    bench.choose(['l0', 'l1']);
    act.group(bench);
    expect(bench.getState().message?.text).toMatch(/one sheet/);
    expect(bench.getState().undoable).toHaveLength(2);
  });

  it('duplicates a little aside, and chooses the copies', () => {
    const bench = benchWith(drawing);
    bench.choose(['l0']);
    act.duplicate(bench);
    const [copy] = chosen(bench);
    expect(copy).not.toBe('l0');
    const [a, b] = ['l0', copy].map((id) => skeletonBox(lines(bench).find((l) => l.id === id)!));
    expect(b.minX - a.minX).toBeCloseTo(14, 6);
  });

  it('joins the nearest ends of two lines, closes one, and refuses three', () => {
    const bench = benchWith(drawing);
    bench.choose(['l0', 'l1']);
    act.joinChosen(bench);
    expect(lines(bench)).toHaveLength(11);
    expect(chosen(bench)).toHaveLength(1);
    act.joinChosen(bench);
    expect(lines(bench).find((l) => l.id === chosen(bench)[0])!.runs[0].closed).toBe(true);
    bench.choose(['l2', 'l3', 'l4']);
    act.joinChosen(bench);
    expect(bench.getState().message?.text).toMatch(/two open lines/);
  });

  it('moves lines to another sheet and in their order, one undo step each', () => {
    const bench = benchWith(drawing);
    bench.choose(['l0']);
    act.toSheet(bench, 's1');
    act.order(bench, 'to back');
    expect(linesOf(bench.getState().drawing.sheets[1]).map((l) => l.id)).toEqual(['l0', 'l1', 'l5', 'l9']);
    act.order(bench, 'to back');
    expect(bench.getState().message?.text).toMatch(/already/);
    expect(bench.getState().undoable).toHaveLength(2);
  });
});

describe('the clipboard', () => {
  it('holds a sound SVG of what is chosen, and pastes it on the sheet in hand, in place or about a place', async () => {
    const bench = benchWith(drawing);
    expect(copied(bench)).toBeNull();
    bench.choose(['l0', 'l5']);
    const svg = copied(bench)!;
    expect(readSvg(svg).drawing.sheets.map((s) => linesOf(s).length)).toEqual([1, 1]);
    bench.setState({ sheet: 's3' });
    await paste(bench, svg, { x: 500, y: 300 });
    const pasted = linesOf(bench.getState().drawing.sheets[3]).slice(3);
    expect(chosen(bench)).toEqual(pasted.map((l) => l.id).sort());
    const boxes = pasted.map(skeletonBox);
    const middle = (low: 'minX' | 'minY', high: 'maxX' | 'maxY'): number =>
      (Math.min(...boxes.map((b) => b[low])) + Math.max(...boxes.map((b) => b[high]))) / 2;
    expect([middle('minX', 'maxX'), middle('minY', 'maxY')]).toEqual([expect.closeTo(500, 6), expect.closeTo(300, 6)]);
    bench.undo();
    expect(linesOf(bench.getState().drawing.sheets[3])).toHaveLength(3);
  });

  it('keeps what was copied in full before pictures of pages, where there is no room for both', async () => {
    const bench = benchWith(drawing);
    bench.choose(['l0']);
    const svg = copied(bench)!;
    const seen = `data:image/webp;base64,${'A'.repeat(60_000)}`;
    Object.assign(globalThis, { localStorage: new TestStorage(60_500), innerWidth: 9, innerHeight: 9 });
    const place = { left: 0, top: 0, width: 9, height: 9, window: { width: 9, height: 9 } };
    keepLastSeen('d', seen, place);
    expect(localStorage.getItem(`${LAST_SEEN}d`)).toContain(seen);
    expect(copied(bench)).toBe(svg);
    expect(localStorage.getItem(`${LAST_SEEN}d`)).toBeNull();
    await paste(bench, svg, null);
    const pasted = lines(bench).find((l) => l.id === chosen(bench)[0])!;
    // An SVG alone does not tell what kind a node is.
    expect(pasted.runs).toEqual(lines(bench).find((l) => l.id === 'l0')!.runs);
  });

  it('takes an SVG from elsewhere, says what it leaves out, and refuses what is none', async () => {
    const bench = benchWith(drawing);
    await paste(
      bench,
      '<svg xmlns="http://www.w3.org/2000/svg"><text>x</text><path d="M5 5L9 9" stroke="red"/></svg>',
      null,
    );
    expect(chosen(bench)).toHaveLength(1);
    expect(bench.getState().message?.text).toContain('text');
    const before = lines(bench).length;
    await paste(bench, '<svg><path d="', null);
    expect(bench.getState().message?.text).toMatch(/cannot be pasted/);
    await paste(bench, '<svg xmlns="http://www.w3.org/2000/svg"/>', null);
    expect(lines(bench)).toHaveLength(before);
    // Gradients come along.
    const shaded =
      '<linearGradient id="g"><stop/><stop offset="1" stop-color="#00f"/></linearGradient><path d="M0 0L9 9L0 9Z" fill="url(#g)"/>';
    await paste(bench, `<svg xmlns="http://www.w3.org/2000/svg">${shaded}</svg>`, null);
    const { gradients } = bench.getState().drawing;
    expect(lines(bench).at(-1)!.style.fill).toEqual({ gradient: gradients![0].id });
    bench.undo();
    expect(bench.getState().drawing.gradients ?? []).toEqual([]);
  });

  it('cuts, and pastes nothing on a locked sheet', async () => {
    const bench = benchWith(drawing);
    bench.choose(['l0']);
    const svg = cut(bench)!;
    expect(lines(bench)).toHaveLength(11);
    bench.commit(setSheet(bench.getState().drawing, 's0', { locked: true }, 'Lock'));
    bench.setState({ sheet: 's0' });
    await paste(bench, svg, null);
    expect(lines(bench)).toHaveLength(11);
    expect(bench.getState().message?.action?.label).toBe('Unlock it');
  });
});

test('the loupe never lies over the pointer, nor out of sight, wherever that is', () => {
  const window = { width: 900, height: 600 };
  for (const leftHanded of [true, false])
    for (let x = 0; x <= 900; x += 50)
      for (let y = 0; y <= 600; y += 50) {
        const m = loupeMiddle({ x, y }, window, leftHanded);
        expect(Math.hypot(m.x - x, m.y - y)).toBeGreaterThan(92);
        // The pills along the upper and lower edge stay free.
        expect(m.x > 80 && m.x < 820 && m.y - 92 > 44 && m.y + 92 < 556).toBe(true);
      }
  expect(loupeMiddle({ x: 450, y: 300 }, window, false).x).toBeLessThan(450);
  expect(loupeMiddle({ x: 450, y: 300 }, window, true).x).toBeGreaterThan(450);
});
