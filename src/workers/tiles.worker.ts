import type { Box, Change, Drawing } from '@/core';
import { applyChange } from '@/core/change/apply';
import { unpacked } from '@/core/formats/packed';
import { boxesMeet, joinBoxes } from '@/core/geometry/box';
import { paintedId } from '@/core/scene/scene';
import { ArtIndex, type Painted } from './artIndex';
import { ArtPictures } from './artPictures';
import { paintLeaves } from '@/painting/paintLeaves';
import { paintMark, plainLooks, type Looks } from '@/painting/paintLine';
import {
  ABOUT_DRAWING,
  FIRST_ORDER,
  layerKinds,
  TILE,
  tileKey,
  type FromPainter,
  type LayerKind,
  type ToPainter,
} from './tileProtocol';

/** A painted tile; what part of it (page units) is out of date, null where nothing is; and what has come and is not on it yet. */
type Tile = { column: number; row: number; canvas: OffscreenCanvas; stale: Box | null; fresh: Painted[] };

const art = new ArtIndex();
/** A picture that has come is painted wherever it is seen. */
const pictures = new ArtPictures(() => {
  for (const box of art.pictures) spoil(box);
  for (const kind of layerKinds) if (layers[kind].order > 0) again(kind);
  schedule();
});
let drawing: Drawing | null = null;
let hidden = new Set<string>();
let looks = plainLooks;
let solo: string | null = null;
let scale = 0;
let wanted: [number, number][] = [];
let tiles = new Map<string, Tile>();
let order = 0;
let toldOrder = 0;
let scheduled = false;
/** The lines that are chosen, where they are very many. */
let chosen = new Set<string>();
/** Hidden lines lie below this place in the painting order, or at it; what is above them is painted once more. */
let highest = Infinity;
/** Where the hidden lines are seen. */
let near: Box | null = null;
/** What is painted beside the tiles: as of which message, and which of its tiles are done. */
const layers: Record<LayerKind, { order: number; done: Set<string> }> = {
  chosen: { order: 0, done: new Set() },
  marks: { order: 0, done: new Set() },
  over: { order: 0, done: new Set() },
};

const post = (message: FromPainter, transfer: Transferable[] = []): void =>
  (self as unknown as Worker).postMessage(message, transfer);

if (self.name) fetchDrawing(self.name).catch(fail);

// The first canvas of a worker waits for the page to be free: better while the drawing is on its way than with the first tile.
new OffscreenCanvas(1, 1).getContext('2d')!.clearRect(0, 0, 1, 1);

self.onmessage = ({ data }: MessageEvent<ToPainter>) => hear(data);

function hear(message: ToPainter): void {
  try {
    receive(message);
    schedule();
  } catch (error) {
    fail(error);
  }
}

function fail(error: unknown): void {
  post({ kind: 'failed', why: String(error) });
}

/** Asks for a drawing, for itself and for the page, which gets it first; what does not come the page asks for by itself. */
async function fetchDrawing(url: string): Promise<void> {
  const packed = await packedAt(url).catch(() => null);
  const own = packed?.bytes.slice(0);
  post({ kind: 'fetched', packed }, packed ? [packed.bytes] : []);
  if (own) hear({ kind: 'read', order: FIRST_ORDER, bytes: own });
}

async function packedAt(url: string): Promise<{ about: string; bytes: ArrayBuffer } | null> {
  const response = await fetch(url);
  const about = response.headers.get(ABOUT_DRAWING);
  return response.ok && about !== null ? { about, bytes: await response.arrayBuffer() } : null;
}

function receive(message: ToPainter): void {
  if (message.kind === 'want') {
    if (message.scale !== scale) {
      tiles = new Map();
      for (const kind of layerKinds) layers[kind].done.clear();
    }
    scale = message.scale;
    wanted = message.tiles;
    const keys = new Set(wanted.map(([c, r]) => tileKey(c, r)));
    for (const key of tiles.keys()) if (!keys.has(key)) tiles.delete(key);
    return;
  }
  if (message.kind === 'near') {
    near = message.box;
    return;
  }
  order = message.order;
  if (message.kind === 'hide') {
    const next = new Set(message.lines);
    if (hidden.size + next.size > MANY) spoilAll();
    else
      for (const id of new Set([...hidden, ...next])) {
        const box = hidden.has(id) === next.has(id) ? undefined : art.boxOf(id);
        if (box) spoil(box);
      }
    hidden = next;
    near = null;
    highest = Infinity;
    for (const id of hidden) highest = Math.max(highest === Infinity ? -1 : highest, art.orderOf(id));
    again('over');
    return;
  }
  if (message.kind === 'choose') {
    chosen = new Set(message.lines);
    again('chosen');
    again('marks');
    return;
  }
  if (message.kind === 'look') {
    const isSame = looksKey(looks, solo) === looksKey(message.looks, message.solo);
    if (drawing && message.solo !== solo) art.follow(drawing, message.solo);
    [looks, solo] = [message.looks, message.solo];
    if (isSame) return;
    spoilAll();
    for (const kind of layerKinds) again(kind);
    return;
  }
  drawing = drawingAfter(message);
  const { changed, fresh } = art.follow(drawing, solo);
  if (changed.length > MANY) spoilAll();
  else for (const box of changed) spoil(box);
  for (const item of fresh) for (const tile of tilesAt(item)) tile.fresh.push(item);
  if (chosen.size > 0) {
    again('chosen');
    again('marks');
  }
}

const looksKey = ({ draft, seeThrough, bare }: Looks, sheet: string | null): string =>
  [draft, seeThrough, bare, sheet].join();

function drawingAfter(message: Extract<ToPainter, { kind: 'load' | 'read' | 'change' }>): Drawing {
  if (message.kind === 'change') {
    const { change } = message;
    return applyChange(drawing!, typeof change === 'string' ? (JSON.parse(change) as Change) : change);
  }
  if (message.kind === 'load') return message.drawing;
  return unpacked(new Uint8Array(message.bytes));
}

/** When more places than this are out of date, all are taken to be. */
const MANY = 400;

function spoilAll(): void {
  for (const tile of tiles.values()) tile.stale = boxOfTile(tile);
}

/** A layer is to be painted anew. */
function again(kind: LayerKind): void {
  layers[kind] = { order, done: new Set() };
}

function spoil(box: Box): void {
  for (const tile of tilesAt(box)) tile.stale = tile.stale ? joinBoxes(tile.stale, box) : box;
}

const tilesAt = (box: Box): Tile[] => [...tiles.values()].filter((tile) => boxesMeet(boxOfTile(tile), box));

const boxOfTile = ({ column, row }: Pick<Tile, 'column' | 'row'>): Box => ({
  minX: (column * TILE) / scale,
  minY: (row * TILE) / scale,
  maxX: ((column + 1) * TILE) / scale,
  maxY: ((row + 1) * TILE) / scale,
});

/** One tile a turn, so that news is heard in between. A message comes round sooner than a timer. */
const turn = new MessageChannel();
turn.port1.onmessage = () => void work();

function schedule(): void {
  if (scheduled) return;
  scheduled = true;
  turn.port2.postMessage(null);
}

async function work(): Promise<void> {
  try {
    const tile = nextTile();
    if (tile) {
      repaint(tile);
      const at = scale;
      const bitmap = await createImageBitmap(tile.canvas);
      if (at === scale) post({ kind: 'tile', scale: at, column: tile.column, row: tile.row, bitmap }, [bitmap]);
      scheduled = false;
      schedule();
      return;
    }
    scheduled = false;
    if (toldOrder !== order) {
      toldOrder = order;
      post({ kind: 'caughtUp', order });
    }
    if (paintLayers()) schedule();
  } catch (error) {
    scheduled = false;
    fail(error);
  }
}

/** The tile to be painted next: what is out of date first, for it is being looked at, then what is missing. */
function nextTile(): Tile | null {
  if (!drawing || scale === 0) return null;
  for (const tile of tiles.values()) if (tile.stale || tile.fresh.length > 0) return tile;
  for (const [column, row] of wanted) {
    const key = tileKey(column, row);
    if (tiles.has(key)) continue;
    const tile: Tile = { column, row, canvas: new OffscreenCanvas(TILE, TILE), stale: null, fresh: [] };
    tile.stale = boxOfTile(tile);
    tiles.set(key, tile);
    return tile;
  }
  return null;
}

/** Paints the next tile of a layer, if there is one that is still wanted; whether there was. */
function paintLayers(): boolean {
  if (!drawing || scale === 0) return false;
  for (const kind of layerKinds) {
    const layer = layers[kind];
    if (layer.order === 0) continue;
    const next = wanted.find(([column, row]) => {
      if (layer.done.has(tileKey(column, row))) return false;
      return kind !== 'over' || (near !== null && boxesMeet(near, boxOfTile({ column, row })));
    });
    if (!next) continue;
    const [column, row] = next;
    layer.done.add(tileKey(column, row));
    const bitmap = paintedLayer(kind, column, row);
    post({ kind: 'layer', layer: kind, order: layer.order, scale, column, row, bitmap }, bitmap ? [bitmap] : []);
    return true;
  }
  return false;
}

function paintedLayer(kind: LayerKind, column: number, row: number): ImageBitmap | null {
  const isIn = {
    chosen: (id: string) => chosen.has(id),
    marks: (id: string) => chosen.has(id),
    over: (id: string, place: number) => place > highest && !hidden.has(id),
  }[kind];
  const isNone = kind === 'over' ? hidden.size === 0 || highest >= art.size - 1 : chosen.size === 0;
  const items = isNone
    ? []
    : art.within(boxOfTile({ column, row })).filter(({ node, order: place }) => isIn(paintedId(node), place));
  if (items.length === 0) return null;
  const canvas = new OffscreenCanvas(TILE, TILE);
  const ctx = canvas.getContext('2d')!;
  ctx.setTransform(scale, 0, 0, scale, -column * TILE, -row * TILE);
  if (kind !== 'marks') paintLeaves(ctx, items, scale, pictures.of, looks);
  else for (const { node } of items) if (node.kind === 'line') paintMark(ctx, node.line, scale, node.tag);
  return canvas.transferToImageBitmap();
}

/** Brings a tile up to date: what has come is laid over it where it lies above all else, or else a part is painted anew. */
function repaint(tile: Tile): void {
  const { stale, fresh } = tile;
  [tile.stale, tile.fresh] = [null, []];
  const around = fresh.length > 0 ? fresh.reduce<Box>(joinBoxes, fresh[0]) : null;
  if (stale || !around || !art.liesOnTop(fresh, around))
    paintAnew(tile, stale && around ? joinBoxes(stale, around) : (stale ?? around!));
  else
    paintOn(
      tile,
      fresh.toSorted((a, b) => a.order - b.order),
    );
}

/** Paints a part of a tile anew: all lines that reach into it, in their order. */
function paintAnew(tile: Tile, stale: Box): void {
  const { column, row } = tile;
  const [left, top] = [
    Math.max(0, Math.floor(stale.minX * scale - column * TILE) - 1),
    Math.max(0, Math.floor(stale.minY * scale - row * TILE) - 1),
  ];
  const [right, bottom] = [
    Math.min(TILE, Math.ceil(stale.maxX * scale - column * TILE) + 1),
    Math.min(TILE, Math.ceil(stale.maxY * scale - row * TILE) + 1),
  ];
  if (right <= left || bottom <= top) return;
  const ctx = tile.canvas.getContext('2d')!;
  ctx.save();
  ctx.beginPath();
  ctx.rect(left, top, right - left, bottom - top);
  ctx.clip();
  ctx.clearRect(left, top, right - left, bottom - top);
  const box: Box = {
    minX: (column * TILE + left) / scale,
    minY: (row * TILE + top) / scale,
    maxX: (column * TILE + right) / scale,
    maxY: (row * TILE + bottom) / scale,
  };
  paintOn(tile, art.within(box));
  ctx.restore();
}

/** Paints on a tile what is not hidden of some things, the lowest first. */
function paintOn({ canvas, column, row }: Tile, items: readonly Painted[]): void {
  const ctx = canvas.getContext('2d')!;
  ctx.save();
  ctx.setTransform(scale, 0, 0, scale, -column * TILE, -row * TILE);
  const seen = items.filter(({ node }) => !hidden.has(paintedId(node)));
  paintLeaves(ctx, seen, scale, pictures.of, looks);
  ctx.restore();
}
