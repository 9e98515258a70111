import type { Box } from '@/core';
import { boxArea, commonBox, holdsBox } from '@/core/geometry/box';
import type { Painted } from './artIndex';
import { TILE } from './tileProtocol';
import { TileSet, type Tile } from './tileSet';

const box = (minX: number, minY: number, maxX: number, maxY: number): Box => ({ minX, minY, maxX, maxY });
const places: [number, number][] = [
  [0, 0],
  [1, 0],
  [5, 5],
];
const seen = box(100, 0, TILE + 200, 300);

/** What is painted until all is done, a tile's part at a time; as the worker does it. */
function* painted(set: TileSet<object>): Generator<Tile<object> & { done: Box | null }> {
  for (let tile = set.next(); tile; tile = set.next()) {
    const done = tile.stale;
    [tile.stale, tile.fresh] = [null, []];
    yield { ...tile, done };
  }
}
const wanting = (isMuch: boolean, at = seen) => {
  const set = new TileSet(
    () => ({}),
    () => isMuch,
  );
  set.want({ kind: 'want', scale: 1, tiles: places, seen: at });
  return set;
};

test('where there is much, what is seen comes first, then the rest of it, then what lies around', () => {
  const set = wanting(true);
  const order = [...painted(set)];
  expect(order.slice(0, 2).map(({ column, part, done }) => [column, part, done])).toEqual([
    [0, box(100, 0, TILE, 300), box(100, 0, TILE, 300)],
    [1, box(TILE, 0, TILE + 200, 300), box(TILE, 0, TILE + 200, 300)],
  ]);
  expect(order.at(-1)).toMatchObject({ column: 5, part: null, done: set.boxOf({ column: 5, row: 5 }) });
  for (const [column, row] of places) {
    const own = order.filter((tile) => tile.column === column);
    // All of it is painted in the end, none of it twice, and what is said to be painted is.
    expect(own.reduce((sum, { done }) => sum + boxArea(done!), 0)).toBe(TILE * TILE);
    let area = 0;
    for (const { part, done } of own) {
      area += boxArea(done!);
      expect(area).toBe(boxArea(part ?? set.boxOf({ column, row })));
    }
    expect(own.at(-1)!.part).toBeNull();
  }
});

test('where there is little, or all of a tile is seen, it is painted as a whole', () => {
  for (const set of [wanting(false), wanting(true, box(-TILE, -TILE, 9 * TILE, 9 * TILE))])
    expect([...painted(set)].map(({ column, part, done }) => [column, part, boxArea(done!)])).toEqual(
      places.map(([column]) => [column, null, TILE * TILE]),
    );
});

test('what is out of date comes before all else, and what has come is laid on each tile that it reaches', () => {
  const set = wanting(true);
  set.next()!.stale = null;
  const changed = box(110, 10, 120, 20);
  set.spoil(changed);
  expect(set.next()).toMatchObject({ column: 0, stale: changed, part: commonBox(seen, box(0, 0, TILE, TILE)) });
  set.spoil(box(130, 10, 140, 20));
  expect(holdsBox(set.next()!.stale!, changed)).toBe(true);
  void [...painted(set)];
  set.lay({ ...box(TILE - 5, 0, TILE + 5, 5) } as Painted);
  expect([...painted(set)].map(({ column }) => column)).toEqual([0, 1]);
  set.spoilAll();
  expect([...painted(set)]).toHaveLength(3);
  // Tiles of another scale, or that nobody wants now, are let go.
  set.want({ kind: 'want', scale: 1, tiles: [[0, 0]], seen });
  expect([...painted(set)]).toEqual([]);
  set.want({ kind: 'want', scale: 2, tiles: [[0, 0]], seen });
  expect([...painted(set)].length).toBeGreaterThan(0);
});

test('all at once out of date: a tile that was painted in part is painted whole', () => {
  const set = wanting(true);
  set.next()!.stale = null;
  set.spoilAll();
  expect(set.next()).toMatchObject({ column: 0, part: null, stale: box(0, 0, TILE, TILE) });
});
