import { opaqueColourOf } from '../scene/ink';
import { rgbColour, shaded } from '../colour/colour';
import { toneOf } from '../colour/tone';
import type { Edit } from '../change/edit';
import { findItem } from '../drawing/find';
import { isFlat, isLine } from '../drawing/items';
import { isShade, isSwatch, type Blend, type Paint } from '../drawing/paint';
import { firstStyle, type Drawing, type Item, type Line, type Run } from '../drawing/schema';
import { layInside } from './keepInside';

/** A shape of shade or light, in page units: its outline, and how much darker (above 0) or lighter it is in tone, -1…1. */
export type ShadeShape = { readonly runs: readonly Run[]; readonly by: number };

export type ShadeHow = { readonly blend: Blend; readonly opacity: number };

/** The paint of a flat or a filled line; null where there is none. */
export const fillOf = (item: Item): Paint | null => (isFlat(item) ? item.fill : isLine(item) ? item.style.fill : null);

/** How dark a shade of a colour is to be so that its tone is so much lower, or higher. */
export function shadeBy(colour: string, by: number): number {
  const wanted = Math.min(1, Math.max(0, toneOf(colour) - by));
  let [low, high] = by >= 0 ? [0, 1] : [-1, 0];
  for (let k = 0; k < 24; k++) {
    const middle = (low + high) / 2;
    if (toneOf(shaded(colour, middle)) > wanted) low = middle;
    else high = middle;
  }
  return Math.round(((low + high) / 2) * 1e4) / 1e4;
}

/** A paint made so much darker, or lighter, in tone: it stays a shade of it, and changes with the swatch that it is of. */
export function shadeOf(d: Drawing, fill: Paint, by: number): Paint {
  const plain = opaqueColourOf(d, fill);
  const base = isShade(fill) ? plain : typeof fill === 'string' ? plain : isSwatch(fill) ? fill : plain;
  return { of: base, by: shadeBy(plain, by), else: plain };
}

/** The colour that, laid over another by a blend, gives a third as nearly as can be (Compositing and Blending 1). */
export function underBlend(below: string, wanted: string, blend: Blend): string {
  if (blend === 'normal') return wanted;
  const channel = (c: string, i: number): number => parseInt(c.slice(1 + 2 * i, 3 + 2 * i), 16) / 255;
  const [r, g, b] = [0, 1, 2].map((i) => {
    const [f, t] = [channel(below, i), channel(wanted, i)];
    const own = blend === 'multiply' ? (f > 0 ? t / f : 1) : f < 1 ? 1 - (1 - t) / (1 - f) : 0;
    return 255 * Math.min(1, Math.max(0, own));
  });
  return rgbColour(r, g, b);
}

/**
 * Shapes of shade and light laid inside of a flat or a closed line, above what is there: shades of its own fill. With
 * *multiply* or *screen* they are colours that give those shades over it.
 */
export function layShades(
  d: Drawing,
  shape: string,
  shades: readonly ShadeShape[],
  { blend, opacity }: ShadeHow,
  freshId: () => string,
): Edit {
  const item = findItem(d, shape)?.item;
  const fill = (item && fillOf(item)) ?? '#808080';
  const plain = opaqueColourOf(d, fill);
  const paintOf = (by: number): Paint =>
    blend === 'normal' ? shadeOf(d, fill, by) : underBlend(plain, shaded(plain, shadeBy(plain, by)), blend);
  const lines = shades.map(({ runs, by }): Line => ({
    id: freshId(),
    runs,
    style: { ...firstStyle, width: 0, fill: paintOf(by) },
    ...(opacity < 1 && { opacity }),
    ...(blend !== 'normal' && { blend }),
    name: by >= 0 ? 'Shade' : 'Light',
  }));
  return layInside(d, lines, shape, shades.length === 1 ? 'Shade' : `Shade in ${shades.length} shapes`, freshId);
}
