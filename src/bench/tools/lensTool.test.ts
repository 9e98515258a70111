import type { Correction, Point } from '@/core';
import { placedReference, placeReference } from '@/core/edits/references';
import { wanderingDrawing } from '@/core/test/drawings';
import { benchWith, Hand } from '../test/hand';
import { LensTool } from './lensTool';

/** What the worker would follow; the tests set it. */
let along: (way: Point[]) => Promise<Point[]>;
jest.mock('../state/corrections', () => ({
  sourceOf: () => ({}),
  correct: { along: (_source: unknown, _list: unknown, way: Point[]) => along(way) },
}));

const settled = () => new Promise((r) => setTimeout(r, 0));

/** 1000 x 700 page units, filled by a picture of 1000 x 700 px: shares are thousandths across. */
function benchWithPicture() {
  const drawing = wanderingDrawing(2, 3, 1);
  const picture = {
    id: 'r',
    name: 'photo.png',
    picture: 'a'.repeat(64),
    pixelWidth: 1000,
    pixelHeight: 700,
    dpi: null,
  };
  const bench = benchWith(drawing);
  bench.commit(placeReference(bench.getState().drawing, placedReference(drawing.page, picture)));
  bench.setState({ stage: 'prepare', window: { width: 1000, height: 700 } });
  const own = <K extends Correction['kind']>(kind: K) =>
    bench.getState().drawing.references[0].corrections.find((c) => c.kind === kind) as
      Extract<Correction, { kind: K }> | undefined;
  return { bench, own };
}

/** An arc through two places at a height, bowed upwards in its middle; all in thousandths. */
const arc = (y: number, bow: number): Point[] =>
  Array.from({ length: 21 }, (_, i) => ({ x: 150 + 35 * i, y: y - bow * (1 - ((i - 10) / 10) ** 2) }));
const inShares = (points: readonly Point[]): Point[] => points.map((p) => ({ x: p.x / 1000, y: p.y / 700 }));

test('what a hand goes along is made straight; another line tells with it; a press on a line takes it away', async () => {
  const { bench, own } = benchWithPicture();
  bench.setState({ tool: 'lens' });
  const hand = new Hand(bench, (r) => new LensTool(r));
  along = (way) => Promise.resolve(way);
  hand.stroke(arc(120, 12));
  expect(hand.tool.hints()[0].keys).toBe('a moment');
  await settled();
  const first = own('lens')!;
  expect(first.on && first.lines.map((l) => l.length)).toEqual([21]);
  expect(first.bend).toBeLessThan(-0.05);
  // The picture is seen as it came while the tool is in hand, and grows once it is straight.
  const shown = hand.tool.shows(bench.getState().drawing).references[0];
  expect([shown.corrections, shown.width]).toEqual([[], 1000]);
  along = () => Promise.resolve(inShares(arc(580, -12)));
  hand.stroke(arc(600, -9));
  await settled();
  expect(own('lens')!.lines).toHaveLength(2);
  expect(own('lens')!.bend).toBeCloseTo(first.bend, 2);
  hand.click({ x: 500, y: 592 });
  expect(own('lens')!.lines).toEqual(first.lines);
  bench.undo();
  bench.undo();
  bench.undo();
  expect(own('lens')).toBeUndefined();
});
test('a line through the middle, a short one, one called off and one that fails set nothing', async () => {
  const { bench, own } = benchWithPicture();
  bench.setState({ tool: 'lens' });
  const hand = new Hand(bench, (r) => new LensTool(r));
  along = (way) => Promise.resolve(way);
  hand.stroke(arc(350, 0));
  await settled();
  expect(bench.getState().message!.text).toContain('through the middle');
  hand.drag({ x: 200, y: 100 }, { x: 230, y: 100 });
  hand.press({ x: 150, y: 120 });
  hand.move({ x: 700, y: 100 });
  expect(hand.key('Escape')).toBe(true);
  hand.release({ x: 700, y: 100 });
  along = () => Promise.reject(new Error('no picture'));
  hand.stroke(arc(120, 12));
  await settled();
  expect(bench.getState().message!.text).toContain('no picture');
  expect(own('lens')).toBeUndefined();
  expect(hand.tool.hints()[0].keys).toBe('drag');
});
