import { allLines } from '@/core/drawing/items';
import { placedReference, placeReference, setCorrection } from '@/core/edits/references';
import { setPage } from '@/core/edits/page';
import { firstCorrections, type Correction } from '@/core/raster/correction';
import { runFromCubics } from '@/core/drawing/fromCubics';
import { firstStyle } from '@/core/drawing/schema';
import { wanderingDrawing } from '@/core/test/drawings';
import type { Line, Quad } from '@/core';
import { prefer } from '../state/preferences';
import { benchWith, Hand } from '../test/hand';
import { CornersTool } from './cornersTool';
import { CropTool } from './cropTool';
import { PartTool } from './partTool';
import { PenTool } from './penTool';
import { beforeCorrection, correctionsBefore, workedOn } from './pictureTool';
import { PullTool } from './pullTool';
import { TonesTool } from './tonesTool';

/** What the worker would find; the tests set it. */
let found: Quad | null = null;
jest.mock('../state/corrections', () => ({
  sourceOf: () => ({}),
  correct: { corners: () => Promise.resolve(found) },
}));

const drawing = wanderingDrawing(2, 3, 1);
/** 1000 x 700 page units, filled by a picture of 1000 x 700 px: shares are thousandths across. */
const reference = placedReference(drawing.page, {
  id: 'r',
  name: 'scan.png',
  picture: 'a'.repeat(64),
  pixelWidth: 1000,
  pixelHeight: 700,
  dpi: null,
});

function benchWithPicture() {
  const bench = benchWith(drawing);
  bench.commit(placeReference(bench.getState().drawing, reference));
  bench.setState({ stage: 'prepare', window: { width: 1000, height: 700 } });
  const own = <K extends Correction['kind']>(kind: K) =>
    bench.getState().drawing.references[0].corrections.find((c) => c.kind === kind) as
      Extract<Correction, { kind: K }> | undefined;
  return { bench, own };
}
const settled = () => new Promise((r) => setTimeout(r, 0));

describe('ink and paper', () => {
  test('the first press picks ink, the next paper, with Alt the other; each is one undo step', () => {
    const { bench, own } = benchWithPicture();
    prefer({ pickTone: 'ink' });
    // What lies left of the middle is of tone 60, the rest of tone 220.
    const patch = (tone: number) =>
      ({ width: 1, height: 1, data: Uint8ClampedArray.of(tone, tone, tone, 255) }) as ImageData;
    const hand = new Hand(
      bench,
      (r) =>
        new TonesTool({ ...r, picture: () => ({}) as ImageBitmap }, (_, at) =>
          at.x < 0 || at.x > 1 ? null : patch(at.x < 0.5 ? 60 : 220),
        ),
    );
    hand.click({ x: 2000, y: 100 });
    expect(own('levels')).toBeUndefined();
    hand.click({ x: 200, y: 100 });
    expect(own('levels')).toMatchObject({ on: true, black: 60, white: 255 });
    hand.click({ x: 800, y: 100 });
    expect(own('levels')).toMatchObject({ black: 60, white: 220 });
    hand.click({ x: 800, y: 100 }, { alt: true });
    expect(own('levels')).toMatchObject({ black: 60, white: 220 });
    bench.undo();
    bench.undo();
    expect(own('levels')).toBeUndefined();
    expect(hand.key('Enter')).toBe(true);
    expect(bench.getState().tool).toBe('place');
  });
});

describe('crop', () => {
  test('a box keeps what is in it, a side is moved alone, and each is one undo step', () => {
    const { bench, own } = benchWithPicture();
    const hand = new Hand(bench, (r) => new CropTool(r));
    hand.drag({ x: 200, y: 140 }, { x: 800, y: 560 });
    expect(own('crop')).toMatchObject({ on: true, left: 0.2, right: expect.closeTo(0.2), top: expect.closeTo(0.2) });
    const undoable = bench.getState().undoable.length;
    // The whole picture is seen again while the tool is in hand: its left side is where it was drawn.
    hand.drag({ x: 200, y: 350 }, { x: 100, y: 390 });
    expect(own('crop')).toMatchObject({
      left: expect.closeTo(0.1),
      top: expect.closeTo(0.2),
      bottom: expect.closeTo(0.2),
    });
    expect(bench.getState().undoable).toHaveLength(undoable + 1);
    bench.undo();
    expect(own('crop')!.left).toBeCloseTo(0.2);
  });
  test('nothing is left of nothing: a side does not pass the other, a click does not crop, Escape takes back', () => {
    const { bench, own } = benchWithPicture();
    const hand = new Hand(bench, (r) => new CropTool(r));
    hand.click({ x: 400, y: 300 });
    expect(own('crop')).toBeUndefined();
    hand.drag({ x: 0, y: 350 }, { x: 1400, y: 350 });
    expect((own('crop')?.left ?? 0) + (own('crop')?.right ?? 0)).toBeLessThan(0.99);
    hand.press({ x: 300, y: 200 });
    hand.move({ x: 600, y: 500 });
    const before = bench.getState().drawing;
    expect(hand.key('Escape')).toBe(true);
    hand.tool.release();
    expect(bench.getState().drawing).toBe(before);
    expect(hand.key('Enter')).toBe(true);
    expect(bench.getState().tool).toBe('place');
  });
});

describe('corners', () => {
  const quad: Quad = [
    { x: 0.2, y: 0.2 },
    { x: 0.8, y: 0.1 },
    { x: 0.9, y: 0.9 },
    { x: 0.1, y: 0.8 },
  ];
  test('taken in hand, it finds the page’s corners; a corner is dragged; what would cross is not taken', async () => {
    const { bench, own } = benchWithPicture();
    bench.setState({ tool: 'corners' });
    found = quad;
    const hand = new Hand(bench, (r) => new CornersTool(r));
    hand.tool.begin();
    expect(hand.tool.hints()[0].keys).toBe('a moment');
    await settled();
    expect(own('straighten')).toMatchObject({ on: true, corners: quad });
    hand.drag({ x: 200, y: 140 }, { x: 240, y: 175 });
    expect(own('straighten')!.corners[0]).toEqual({ x: expect.closeTo(0.24), y: expect.closeTo(0.25) });
    hand.drag({ x: 240, y: 175 }, { x: 950, y: 690 });
    const { corners } = own('straighten')!;
    expect(corners[0].x).toBeLessThan(0.9);
    // While it is held the picture is seen before it was straightened.
    const shown = hand.tool.shows(bench.getState().drawing).references[0];
    expect([shown.corrections, shown.width]).toEqual([[], 1000]);
  });
  test('where no page is found it says so, and the hand can still set the corners', async () => {
    const { bench, own } = benchWithPicture();
    bench.setState({ tool: 'corners' });
    found = null;
    const hand = new Hand(bench, (r) => new CornersTool(r));
    hand.tool.begin();
    await settled();
    expect(own('straighten')).toBeUndefined();
    expect(bench.getState().message!.text).toContain('No page edge was found');
    hand.drag({ x: 100, y: 70 }, { x: 150, y: 105 });
    expect(own('straighten')!.corners[0]).toEqual({ x: expect.closeTo(0.15), y: expect.closeTo(0.15) });
  });
  test('it does not look again where corners are set, nor does it commit once it was put down', async () => {
    const { bench, own } = benchWithPicture();
    bench.setState({ tool: 'corners' });
    found = quad;
    const hand = new Hand(bench, (r) => new CornersTool(r));
    hand.tool.begin();
    bench.setState({ tool: 'place' });
    await settled();
    expect(own('straighten')).toBeUndefined();
  });
});

test('the picture worked on is the chosen one, else the topmost that lies under the work', () => {
  const { bench } = benchWithPicture();
  expect(workedOn(bench)?.id).toBe('r');
  bench.commit(placeReference(bench.getState().drawing, { ...reference, id: 'side', beside: true }));
  expect(workedOn(bench)?.id).toBe('r');
  bench.setState({ reference: 'side' });
  expect(workedOn(bench)?.id).toBe('side');
});

test('a correction is seen as it finds the picture: with what comes before it, without what comes after', () => {
  const { bench } = benchWithPicture();
  for (const c of [firstCorrections.levels, { ...firstCorrections.crop, left: 0.5 }, firstCorrections.grey])
    bench.commit(setCorrection(bench.getState().drawing, 'r', c, c.kind));
  const [r] = bench.getState().drawing.references;
  expect(correctionsBefore(r, 'levels').map((c) => c.kind)).toEqual(['crop']);
  expect(correctionsBefore(r, 'straighten').map((c) => c.kind)).toEqual(['crop']);
  expect(correctionsBefore(r, 'crop')).toEqual([]);
  const before = beforeCorrection(bench.getState().drawing, r, 'crop');
  expect([before.width, before.height]).toEqual([1000, 700]);
});

describe('part', () => {
  test('a box is kept with the sheet in hand, and can be taken away', () => {
    const { bench } = benchWithPicture();
    const hand = new Hand(bench, (r) => new PartTool(r));
    const part = () => bench.getState().drawing.sheets.find((s) => s.id === bench.getState().sheet)!.part;
    hand.click({ x: 50, y: 50 });
    expect(part()).toBeNull();
    hand.drag({ x: 300, y: 250 }, { x: 120, y: 90 });
    expect(part()).toEqual({ minX: 120, minY: 90, maxX: 300, maxY: 250 });
    expect(hand.key('Delete')).toBe(true);
    expect([part(), hand.key('Delete')]).toEqual([null, false]);
  });
});

describe('pull ink', () => {
  const straight = (id: string, y: number): Line => ({
    id,
    style: firstStyle,
    runs: [
      runFromCubics(
        [
          [
            { x: 100, y },
            { x: 200, y },
            { x: 300, y },
            { x: 400, y },
          ],
        ],
        false,
      ),
    ],
  });
  test('crumbs are dropped by a lasso or a click, kept after all with Alt, and all of it is forgotten with the tool', () => {
    const { bench } = benchWithPicture();
    const lines = [straight('a', 100), straight('b', 200), straight('c', 300)];
    bench.setState({ pulled: { reference: 'r', lines, dropped: new Set() } });
    const hand = new Hand(bench, (r) => new PullTool(r, { pull: 'Pull lines', makes: 'draws lines', one: 'line' }));
    const dropped = () => [...bench.getState().pulled!.dropped].sort();
    const around = (top: number, bottom: number, alt = false): void => {
      hand.press({ x: 250, y: top }, { alt });
      for (const p of [
        { x: 450, y: top },
        { x: 450, y: bottom },
        { x: 250, y: bottom },
      ])
        hand.move(p, { alt });
      hand.release({ x: 250, y: top }, { alt });
    };
    around(60, 240);
    expect(dropped()).toEqual(['a', 'b']);
    hand.click({ x: 200, y: 302 });
    expect(dropped()).toEqual(['a', 'b', 'c']);
    around(160, 340, true);
    expect(dropped()).toEqual(['a']);
    hand.click({ x: 700, y: 600 });
    expect(dropped()).toEqual(['a']);
    hand.tool.finish();
    expect(bench.getState().pulled).toBeNull();
    expect(bench.getState().undoable).toHaveLength(1);
  });
});

test('the pen keeps to guides and grid, and Shift overrules them', () => {
  const bench = benchWith(drawing);
  const page = { guides: [{ axis: 'x' as const, at: 300 }], grid: { spacing: 50, visible: true, snap: true } };
  bench.commit(setPage(bench.getState().drawing, page, 'Guides'));
  const hand = new Hand(bench, (r) => new PenTool(r));
  hand.click({ x: 303, y: 148 });
  hand.click({ x: 420, y: 226 });
  hand.click({ x: 424, y: 403 }, { shift: true });
  hand.key('Enter');
  const line = allLines(bench.getState().drawing).find((l) => bench.getState().lines.has(l.id))!;
  const points = line.runs[0].nodes.map((n) => n.point);
  expect(points[0]).toEqual({ x: 300, y: 150 });
  expect(points[1]).toEqual({ x: 420, y: 226 });
  expect(points[2].x).toBeCloseTo(420);
  expect(points[2].y).toBeGreaterThan(400);
});
