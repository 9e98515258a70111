import { edit, type Edit } from '../change/edit';
import { rgbColour } from '../colour/colour';
import { ALIKE, middlesOf, sharedOut } from '../colour/clusters';
import { labDistance, labOfHex, rgbOf, type Lab } from '../colour/oklab';
import type { Paint, Swatch } from '../drawing/paint';
import type { Drawing } from '../drawing/schema';
import { paintSteps } from './flats';
import { freshSwatch, paletteStep, swatchesOf } from './palette';

/** What the picture is like beneath a flat: the colour that is typical of it, and how many of its pixels lie there. */
export type Beneath = { readonly id: string; readonly lab: Lab; readonly pixels: number };

/** What the colours are joined to: each flat's own, so many swatches at most, or the palette that there is. */
export type Joined =
  { readonly to: 'own' } | { readonly to: 'palette' } | { readonly to: 'few'; readonly count: number };

const hexOf = (lab: Lab): string => rgbColour(...rgbOf(lab));

/**
 * Flats painted in the colours of the picture beneath them. Joined to few, these become swatches, if the palette has none that
 * looks the same; joined to the palette, each takes the swatch that is nearest.
 */
export function takeColours(d: Drawing, beneath: readonly Beneath[], joined: Joined, freshId: () => string): Edit {
  const label = beneath.length === 1 ? 'Take a colour' : `Take ${beneath.length} colours`;
  if (beneath.length === 0) return edit(label);
  if (joined.to === 'own') return edit(label, paintSteps(d, new Map(beneath.map((b) => [b.id, hexOf(b.lab)]))));
  const known = swatchesOf(d);
  if (joined.to === 'palette') {
    if (known.length === 0) return edit(label);
    const fills = beneath.map((b): [string, Paint] => [b.id, { swatch: nearest(known, b.lab).id }]);
    return edit(label, paintSteps(d, new Map(fills)));
  }
  const fresh: Swatch[] = [];
  const fills = new Map<string, Paint>();
  const bins = beneath.map((b) => ({ lab: b.lab, count: 1, strength: Math.sqrt(b.pixels), id: b.id }));
  const middles = middlesOf(bins, joined.count);
  sharedOut(bins, middles).forEach((own, k) => {
    if (own.length === 0) return;
    const there = [...known, ...fresh];
    const like = there.length > 0 ? nearest(there, middles[k]) : null;
    const isThere = like && labDistance(labOfHex(like.colour), middles[k]) < ALIKE / 2;
    const swatch = isThere ? like : freshSwatch({ colour: hexOf(middles[k]) }, freshId());
    if (!isThere) fresh.push(swatch);
    for (const { id } of own as typeof bins) fills.set(id, { swatch: swatch.id });
  });
  const palette = fresh.length > 0 ? paletteStep(d, [...known, ...fresh]) : [];
  return edit(label, palette, paintSteps(d, fills));
}

const nearest = (swatches: readonly Swatch[], lab: Lab): Swatch =>
  swatches.reduce((a, b) => (labDistance(labOfHex(b.colour), lab) < labDistance(labOfHex(a.colour), lab) ? b : a));
