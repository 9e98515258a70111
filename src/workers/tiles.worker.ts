import type { Box, Change, Drawing } from '@/core';
import { applyChange } from '@/core/change/apply';
import { unpacked } from '@/core/formats/packed';
import { boxesMeet, joinBoxes } from '@/core/geometry/box';
import { paintedId } from '@/core/scene/scene';
import { ArtIndex, type Painted } from './artIndex';
import { ArtPictures } from './artPictures';
import { ownDrawing } from './ownDrawing';
import { TileSet, type Tile } from './tileSet';
import { paintLeaves } from '@/painting/paintLeaves';
import { paintMark, plainLooks, type Looks } from '@/painting/paintLine';
import {
  FIRST_ORDER,
  layerKinds,
  TILE,
  tileKey,
  type FromPainter,
  type LayerKind,
  type PackedDrawing,
  type ToPainter,
} from './tileProtocol';

type Painting = Tile<OffscreenCanvas>;

const art = new ArtIndex();
/** A picture that has come is painted wherever it is seen. */
const pictures = new ArtPictures(() => {
  for (const box of art.pictures) tiles.spoil(box);
  for (const kind of layerKinds) if (layers[kind].order > 0) again(kind);
  schedule();
});
let drawing: Drawing | null = null;
let hidden = new Set<string>();
let looks = plainLooks;
let solo: string | null = null;
/** With so many things on a tile what is seen of it is painted first. */
const MUCH = 300;
const tiles = new TileSet(
  () => new OffscreenCanvas(TILE, TILE),
  (box) => art.within(box).length > MUCH,
);
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

// The first canvas of a worker waits for the page to be free: better before there is a drawing than with the first tile. One that has
// asked for its drawing has that to read first.
if (ownDrawing) void ownDrawing.then(shareDrawing).catch(fail);
else new OffscreenCanvas(1, 1).getContext('2d')!.clearRect(0, 0, 1, 1);

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

/** What it has asked for is for the page as well, which gets it first. */
function shareDrawing(packed: PackedDrawing | null): void {
  const own = packed?.bytes.slice(0);
  post({ kind: 'fetched', packed }, packed ? [packed.bytes] : []);
  if (own) hear({ kind: 'read', order: FIRST_ORDER, bytes: own });
}

function receive(message: ToPainter): void {
  if (message.kind === 'want') {
    if (message.scale !== tiles.scale) for (const kind of layerKinds) layers[kind].done.clear();
    return tiles.want(message);
  }
  if (message.kind === 'near') {
    near = message.box;
    return;
  }
  order = message.order;
  if (message.kind === 'hide') {
    const next = new Set(message.lines);
    if (hidden.size + next.size > MANY) tiles.spoilAll();
    else
      for (const id of new Set([...hidden, ...next])) {
        const box = hidden.has(id) === next.has(id) ? undefined : art.boxOf(id);
        if (box) tiles.spoil(box);
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
    tiles.spoilAll();
    for (const kind of layerKinds) again(kind);
    return;
  }
  drawing = drawingAfter(message);
  const { changed, fresh } = art.follow(drawing, solo);
  if (changed.length > MANY) tiles.spoilAll();
  else for (const box of changed) tiles.spoil(box);
  for (const item of fresh) tiles.lay(item);
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

/** A layer is to be painted anew. */
function again(kind: LayerKind): void {
  layers[kind] = { order, done: new Set() };
}

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
    const tile = drawing && tiles.next();
    if (tile) {
      repaint(tile);
      const { scale } = tiles;
      const { column, row, part } = tile;
      const bitmap = await createImageBitmap(tile.canvas);
      if (scale === tiles.scale) post({ kind: 'tile', scale, column, row, part, bitmap }, [bitmap]);
      scheduled = false;
      schedule();
      return;
    }
    scheduled = false;
    if (drawing && toldOrder !== order) {
      toldOrder = order;
      post({ kind: 'caughtUp', order });
    }
    if (paintLayers()) schedule();
  } catch (error) {
    scheduled = false;
    fail(error);
  }
}

/** Paints the next tile of a layer, if there is one that is still wanted; whether there was. */
function paintLayers(): boolean {
  if (!drawing || tiles.scale === 0) return false;
  for (const kind of layerKinds) {
    const layer = layers[kind];
    if (layer.order === 0) continue;
    const next = tiles.places.find(([column, row]) => {
      if (layer.done.has(tileKey(column, row))) return false;
      return kind !== 'over' || (near !== null && boxesMeet(near, tiles.boxOf({ column, row })));
    });
    if (!next) continue;
    const [column, row] = next;
    layer.done.add(tileKey(column, row));
    const bitmap = paintedLayer(kind, column, row);
    post(
      { kind: 'layer', layer: kind, order: layer.order, scale: tiles.scale, column, row, bitmap },
      bitmap ? [bitmap] : [],
    );
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
    : art.within(tiles.boxOf({ column, row })).filter(({ node, order: place }) => isIn(paintedId(node), place));
  if (items.length === 0) return null;
  const { scale } = tiles;
  const canvas = new OffscreenCanvas(TILE, TILE);
  const ctx = canvas.getContext('2d')!;
  ctx.setTransform(scale, 0, 0, scale, -column * TILE, -row * TILE);
  if (kind !== 'marks') paintLeaves(ctx, items, scale, pictures.of, looks);
  else for (const { node } of items) if (node.kind === 'line') paintMark(ctx, node.line, scale, node.tag);
  return canvas.transferToImageBitmap();
}

/** Brings a tile up to date: what has come is laid over it where it lies above all else, or else a part is painted anew. */
function repaint(tile: Painting): void {
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
function paintAnew(tile: Painting, stale: Box): void {
  const { scale } = tiles;
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
function paintOn({ canvas, column, row }: Painting, items: readonly Painted[]): void {
  const { scale } = tiles;
  const ctx = canvas.getContext('2d')!;
  ctx.save();
  ctx.setTransform(scale, 0, 0, scale, -column * TILE, -row * TILE);
  const seen = items.filter(({ node }) => !hidden.has(paintedId(node)));
  paintLeaves(ctx, seen, scale, pictures.of, looks);
  ctx.restore();
}
