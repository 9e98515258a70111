import { colourName } from '../colour/colourName';
import { rgbColour } from '../colour/colour';
import { runFromCubics } from '../drawing/fromCubics';
import { placementOf } from '../drawing/beneath';
import type { Line, Reference, Style } from '../drawing/schema';
import { mapCubics, reversed, type Cubic } from '../geometry/cubic';
import type { PulledShape } from './pullShapes';

type Size = { width: number; height: number };

/** Pulled shapes as filled lines without strokes, where the reference lies that they were pulled from. `size` is its picture's. */
export function linesFromShapes(
  shapes: readonly PulledShape[],
  r: Reference,
  size: Size,
  style: Style,
  id: () => string,
): Line[] {
  const { onPage } = placementOf(r, size);
  return shapes.map(({ loops, colour }) => ({
    id: id(),
    style: { ...style, width: 0, fill: rgbColour(...colour), fillRule: 'evenodd' },
    runs: loops.map((l) => runFromCubics(mapCubics(l, onPage), true)),
  }));
}

/** Their borders alone, each once though two shapes share it, as lines without fills; what lies on the picture's rim is none. */
export function linesFromBorders(
  shapes: readonly PulledShape[],
  r: Reference,
  size: Size,
  style: Style,
  id: () => string,
): Line[] {
  const { onPage } = placementOf(r, size);
  const taken = new Set<string>();
  const keyOf = (c: Cubic): string => c.map((p) => `${p.x} ${p.y}`).join(' ');
  const isNew = (c: Cubic): boolean => {
    if (taken.has(keyOf(c))) return false;
    taken.add(keyOf(c)).add(keyOf(reversed(c)));
    return true;
  };
  const isRim = ([a, , , d]: Cubic): boolean =>
    [0, size.width].some((x) => a.x === x && d.x === x) || [0, size.height].some((y) => a.y === y && d.y === y);
  return shapes
    .flatMap(({ loops }) => loops)
    .flatMap((loop) => stretchesOf(loop, (c) => !isRim(c) && isNew(c)))
    .map(({ cubics, closed }) => ({
      id: id(),
      style: { ...style, fill: null },
      runs: [runFromCubics(mapCubics(cubics, onPage), closed)],
    }));
}

/** What of a loop is wanted, in stretches without a gap; the whole loop where all of it is. */
function stretchesOf(loop: readonly Cubic[], isWanted: (c: Cubic) => boolean): { cubics: Cubic[]; closed: boolean }[] {
  const wanted = loop.map(isWanted);
  const gap = wanted.indexOf(false);
  if (gap < 0) return [{ cubics: [...loop], closed: true }];
  const stretches: Cubic[][] = [];
  for (let k = 1; k <= loop.length; k++) {
    const i = (gap + k) % loop.length;
    if (!wanted[i]) continue;
    if (k > 1 && wanted[(i + loop.length - 1) % loop.length]) stretches.at(-1)!.push(loop[i]);
    else stretches.push([loop[i]]);
  }
  return stretches.map((cubics) => ({ cubics, closed: false }));
}

/** Lines by what they are filled with, what covers most first: each sort with a name of its own. */
export function byColour(lines: readonly Line[]): { name: string; lines: Line[] }[] {
  const sorts = new Map<string, Line[]>();
  for (const l of lines) {
    const key = String(l.style.fill);
    sorts.set(key, [...(sorts.get(key) ?? []), l]);
  }
  const names = new Map<string, number>();
  return [...sorts].map(([fill, own]) => {
    const name = colourName(fill);
    const count = (names.get(name) ?? 0) + 1;
    names.set(name, count);
    const capital = name[0].toUpperCase() + name.slice(1);
    return { name: count > 1 ? `${capital} ${count}` : capital, lines: own };
  });
}
