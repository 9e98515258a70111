import { isSameLayer, type Layer, type Leaf, type PictureNode } from '@/core/scene/scene';
import type { Blend, Box } from '@/core';
import { middleOf } from '@/core/drawing/placement';
import { paintLine, pathOf, plainLooks, type Context, type Looks } from './paintLine';

/** The canvas has CSS's own words but for the plain one. */
export const compositeOf = (blend: Blend): GlobalCompositeOperation => (blend === 'normal' ? 'source-over' : blend);

type Open = { layer: Layer; ctx: Context; below: Context; canvas: OffscreenCanvas | null };

/**
 * Paints what lies in layers: each is opened when the first thing in it is painted and laid over what is below when something
 * outside of it comes. A layer that does no more than clip needs no canvas of its own.
 */
class Layers {
  private readonly open: Open[] = [];

  constructor(private readonly ground: Context) {}

  /** The context to paint in for what lies in these layers, the outermost first. */
  at(layers: readonly Layer[]): Context {
    let shared = 0;
    while (shared < this.open.length && layers[shared] && isSameLayer(this.open[shared].layer, layers[shared]))
      shared++;
    this.closeTo(shared);
    for (const layer of layers.slice(shared)) this.enter(layer);
    return this.open.at(-1)?.ctx ?? this.ground;
  }

  closeTo(depth: number): void {
    while (this.open.length > depth) {
      const { layer, ctx, below, canvas } = this.open.pop()!;
      ctx.restore();
      if (!canvas) continue;
      below.save();
      below.resetTransform();
      below.globalAlpha *= layer.opacity;
      below.globalCompositeOperation = compositeOf(layer.blend);
      below.drawImage(canvas, 0, 0);
      below.restore();
    }
  }

  private enter(layer: Layer): void {
    const below = this.open.at(-1)?.ctx ?? this.ground;
    const isOwn = layer.opacity < 1 || layer.blend !== 'normal';
    const canvas = isOwn ? new OffscreenCanvas(below.canvas.width, below.canvas.height) : null;
    const ctx = canvas ? canvas.getContext('2d')! : below;
    ctx.save();
    if (canvas) ctx.setTransform(below.getTransform());
    if (layer.clip) ctx.clip(pathOf(layer.clip), layer.clip.style.fillRule ?? 'nonzero');
    this.open.push({ layer, ctx, below, canvas });
  }
}

/** What gives the bitmap of a placed picture, as large as it is shown; null while it is on its way. */
export type Pictures = (node: PictureNode) => ImageBitmap | null;

/** Paints things in their order, with the layers that they lie in. The context is in page units, `scale` device px to one. */
export function paintLeaves(
  ctx: Context,
  leaves: Iterable<Leaf>,
  scale: number,
  pictures: Pictures,
  looks: Looks = plainLooks,
): void {
  const layers = new Layers(ctx);
  for (const { node, layers: around } of leaves) {
    const own = layers.at(looks.bare ? [] : around);
    if (node.kind === 'line') paintLine(own, node, scale, looks);
    else paintPicture(own, node, pictures(node));
  }
  layers.closeTo(0);
}

/**
 * A picture as it is placed, turned, flipped and blended. Of one that lies upright just the part within `seen` is drawn: far
 * in, the whole of it would be scaled for nothing.
 */
export function paintPicture(
  ctx: Context,
  { placed, opacity, blend }: PictureNode,
  bitmap: ImageBitmap | null,
  seen?: Box,
): void {
  if (!bitmap) return;
  const middle = middleOf(placed);
  ctx.save();
  ctx.globalAlpha *= opacity;
  ctx.globalCompositeOperation = compositeOf(blend);
  if (seen && placed.turn === 0 && !placed.flipX && !placed.flipY) paintPart(ctx, placed, bitmap, seen);
  else {
    ctx.translate(middle.x, middle.y);
    ctx.rotate((placed.turn * Math.PI) / 180);
    ctx.scale(placed.flipX ? -1 : 1, placed.flipY ? -1 : 1);
    ctx.drawImage(bitmap, -placed.width / 2, -placed.height / 2, placed.width, placed.height);
  }
  ctx.restore();
}

function paintPart(ctx: Context, { at, width, height }: PictureNode['placed'], b: ImageBitmap, seen: Box): void {
  const [kx, ky] = [b.width / width, b.height / height];
  const left = Math.max(0, Math.floor((seen.minX - at.x) * kx) - 1);
  const top = Math.max(0, Math.floor((seen.minY - at.y) * ky) - 1);
  const right = Math.min(b.width, Math.ceil((seen.maxX - at.x) * kx) + 1);
  const bottom = Math.min(b.height, Math.ceil((seen.maxY - at.y) * ky) + 1);
  const [w, h] = [right - left, bottom - top];
  if (w > 0 && h > 0) ctx.drawImage(b, left, top, w, h, at.x + left / kx, at.y + top / ky, w / kx, h / ky);
}
