import type { Change, Point } from '@/core';
import type { FromPainter } from '@/workers/tileProtocol';
import { LayerTiles } from './layerTiles';
import { MovedLayers } from './movedLayers';
import { Picking } from './picking';

type Tile = Extract<FromPainter, { kind: 'layer' }>;
const closed: string[] = [];
const tile = (name: string, order: number, more: Partial<Tile> = {}): Tile => ({
  kind: 'layer',
  layer: 'chosen',
  order,
  scale: 1,
  column: 0,
  row: 0,
  bitmap: { name, close: () => closed.push(name) } as unknown as ImageBitmap,
  ...more,
});

const view = { scale: 1, x: 10, y: 20 };
function painted(layers: LayerTiles, shift: (order: number) => { x: number; y: number }): unknown[][] {
  const drawn: unknown[][] = [];
  const ctx = {
    canvas: { width: 3000, height: 2000 },
    save: () => undefined,
    restore: () => undefined,
    drawImage: (b: { name: string }, ...at: number[]) => drawn.push([b.name, ...at]),
  } as unknown as CanvasRenderingContext2D;
  layers.paint(ctx, 'chosen', view, 2, shift);
  return drawn;
}
const nowhere = () => ({ x: 0, y: 0 });

beforeEach(() => (closed.length = 0));

test('a newer tile takes the place of an older one, and never the other way about; another scale ends all before', () => {
  const layers = new LayerTiles();
  layers.receive(tile('a', 3));
  layers.receive(tile('late', 2));
  layers.receive(tile('b', 5));
  expect(closed).toEqual(['late', 'a']);
  layers.receive(tile('c', 6, { column: 1 }));
  expect(painted(layers, nowhere).map(([name]) => name)).toEqual(['b', 'c']);
  layers.receive(tile('d', 7, { scale: 2 }));
  expect(painted(layers, nowhere).map(([name]) => name)).toEqual(['d']);
  layers.receive(tile('none', 8, { scale: 2, bitmap: null }));
  expect(painted(layers, nowhere)).toEqual([]);
  layers.receive(tile('e', 9));
  layers.clear('chosen');
  expect(closed.slice(-1)).toEqual(['e']);
});

test('tiles are painted for the view, scaled from what they were painted for, each moved by what is said for it', () => {
  const layers = new LayerTiles();
  layers.receive(tile('old', 1, { scale: 1 }));
  layers.receive(tile('new', 4, { scale: 1, column: 1 }));
  const drawn = painted(layers, (order) => (order < 3 ? { x: 5, y: 0 } : { x: 0, y: 0 }));
  // Two device pixels a page unit: twice as large as painted.
  expect(drawn).toEqual([
    ['old', 20 + 10, 40, 1024, 1024],
    ['new', 20 + 1024, 40, 1024, 1024],
  ]);
});

test('what was let go of stays moved until the painters have painted it, in the tiles and beside them', () => {
  const layers = new LayerTiles();
  let caughtUp = 0;
  const tiles = { layers, shows: (order: number) => caughtUp >= order, isNear: () => undefined };
  const moved = new MovedLayers(tiles, new Picking(), { box: null });
  const move = (by: Point): Change => ({ id: 'm', label: 'Move', steps: [{ step: 'translate', ids: ['a'], by }] });
  moved.letGo(null, move({ x: 9, y: 9 }), 4);
  layers.receive(tile('a', 3));
  moved.letGo({ x: 4, y: 1 }, move({ x: 4, y: 1 }), 5);
  expect(moved.since(3, { x: 1, y: 1 })).toEqual({ x: 5, y: 2 });
  expect(moved.since(5, null)).toEqual({ x: 0, y: 0 });
  expect([moved.isShown, moved.drop()]).toEqual([false, false]);
  caughtUp = 5;
  expect([moved.isShown, moved.drop()]).toEqual([true, false]);
  layers.receive(tile('b', 5));
  expect(moved.drop()).toBe(true);
  expect(moved.since(3, null)).toEqual({ x: 0, y: 0 });
});
