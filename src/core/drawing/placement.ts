import { boxOfPoints } from '../geometry/box';
import type { Box, Point } from '../geometry/point';
import { correctedSize, type Correction } from '../raster/correction';
import type { Placed } from './item';
import type { Drawing, Page, Reference } from './schema';

/** Where a picture lies, and how it is turned there. */
type Spot = Pick<Placed, 'at' | 'width' | 'height' | 'turn' | 'flipX' | 'flipY'>;

/** The size of a reference's picture once corrected, in its own pixels. */
export const shownPixels = (r: Reference): { width: number; height: number } =>
  correctedSize({ width: r.pixelWidth, height: r.pixelHeight }, r.corrections);

export const middleOf = (r: Pick<Reference, 'at' | 'width' | 'height'>): Point => ({
  x: r.at.x + r.width / 2,
  y: r.at.y + r.height / 2,
});

/** Where a place of the shown picture, in shares of its sides, lies on the page. */
export function sharesToPage(r: Spot, p: Point): Point {
  const m = middleOf(r);
  const x = (p.x - 0.5) * r.width * (r.flipX ? -1 : 1);
  const y = (p.y - 0.5) * r.height * (r.flipY ? -1 : 1);
  const a = (r.turn * Math.PI) / 180;
  return { x: m.x + x * Math.cos(a) - y * Math.sin(a), y: m.y + x * Math.sin(a) + y * Math.cos(a) };
}

/** Where a place of the page lies in the shown picture, in shares of its sides: the inverse of `sharesToPage`. */
export function pageToShares(r: Spot, p: Point): Point {
  const m = middleOf(r);
  const a = (r.turn * Math.PI) / 180;
  const [dx, dy] = [p.x - m.x, p.y - m.y];
  const x = (dx * Math.cos(a) + dy * Math.sin(a)) * (r.flipX ? -1 : 1);
  const y = (-dx * Math.sin(a) + dy * Math.cos(a)) * (r.flipY ? -1 : 1);
  return { x: 0.5 + x / r.width, y: 0.5 + y / r.height };
}

/** How many page units one pixel of the shown picture takes. */
export const unitsPerPixel = (r: Reference): number => r.width / shownPixels(r).width;

/** How many pixels of the shown picture lie on an inch of the page. */
export const dpiOf = (r: Reference): number => 96 / unitsPerPixel(r);

export const holdsPlace = (r: Spot, p: Point): boolean => {
  const s = pageToShares(r, p);
  return s.x >= 0 && s.y >= 0 && s.x <= 1 && s.y <= 1;
};

/** The upright box around a placed picture. */
export const placedBox = (r: Spot): Box =>
  boxOfPoints([0, 1].flatMap((x) => [0, 1].map((y) => sharesToPage(r, { x, y }))));

/** How much of a reference is seen: its own dim and that of all. */
export const opacityOf = (d: Pick<Drawing, 'dim'>, r: Pick<Reference, 'dim'>): number => (1 - r.dim) * (1 - d.dim);

type Rect = Pick<Reference, 'at' | 'width' | 'height'>;

/** The placement with another size about the same middle. */
export function sizedAbout(r: Rect, width: number, height: number): Rect {
  const m = middleOf(r);
  return { at: { x: m.x - width / 2, y: m.y - height / 2 }, width, height };
}

/** How a picture may be laid on the page at once. `dpi`: one inch of the page for so many of its pixels. */
export function laidOut(page: Page, r: Reference, how: 'fit' | 'fill' | 'actual'): Rect {
  const pixels = shownPixels(r);
  const [kx, ky] = [page.width / pixels.width, page.height / pixels.height];
  const k = how === 'fit' ? Math.min(kx, ky) : how === 'fill' ? Math.max(kx, ky) : 96 / (r.dpi ?? page.dpi);
  const [width, height] = [pixels.width * k, pixels.height * k];
  if (how === 'actual') return sizedAbout(r, width, height);
  return { at: { x: (page.width - width) / 2, y: (page.height - height) / 2 }, width, height };
}

/**
 * The placement after other corrections: a pixel stays as large on the page as it was, about the same middle; a picture
 * that filled the page as far as it could does so again.
 */
export function placedAfter(page: Page, r: Reference, corrections: readonly Correction[]): Rect {
  const next = { ...r, corrections };
  const [before, after] = [shownPixels(r), shownPixels(next)];
  if (before.width === after.width && before.height === after.height)
    return { at: r.at, width: r.width, height: r.height };
  const fitted = laidOut(page, r, 'fit');
  const wasFitted =
    r.turn === 0 && Math.abs(fitted.width - r.width) < 1e-6 * r.width && Math.abs(fitted.at.x - r.at.x) < 1e-3;
  if (wasFitted) return laidOut(page, next, 'fit');
  const k = r.width / before.width;
  return sizedAbout(r, after.width * k, after.height * k);
}
