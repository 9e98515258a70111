import { outlineHolds } from '@/core/drawing/outline';
import { createStore } from 'zustand/vanilla';
import type { Drawing } from '@/core';
import { boundsOf, seenFlats } from '@/core/edits/flats';
import type { PlacedArea } from '@/core/edits/placedArea';
import type { Bound } from '@/core/flats/regions';
import type { AreasWorker } from '@/workers/areas.worker';
import { LazyWorker } from './lazyWorker';
import type { BenchState } from './store';

const worker = new LazyWorker<AreasWorker>(
  () => new Worker(new URL('../../workers/areas.worker.ts', import.meta.url), { type: 'module' }),
  'the worker that finds areas',
);

/** All areas between lines. A worker that fails rejects. */
export const areasOf = (bounds: readonly Bound[], gap: number): Promise<PlacedArea[]> =>
  worker.ask((api) =>
    api.areas(
      bounds.map((b) => b.run),
      gap,
    ),
  );

/** What of areas lies outside of the bodies of a drawing's lines. A worker that fails rejects. */
export const innerOf = (d: Drawing, areas: readonly PlacedArea[], without: readonly string[]): Promise<PlacedArea[]> =>
  worker.ask((api) => api.inner(d, areas, without));

/** The sheets whose lines bound nothing: those that are not seen, and those that were told so. */
export const withoutSheets = ({ drawing, unbounding }: Pick<BenchState, 'drawing' | 'unbounding'>): string[] =>
  drawing.sheets.flatMap((s) => (s.visible && !unbounding.has(s.id) ? [] : [s.id]));

/** The areas that were found last, between the lines that bounded them then. */
type Known = { readonly bounds: readonly Bound[]; readonly gap: number; readonly areas: readonly PlacedArea[] };
export const knownAreas = createStore<{ readonly known: Known | null }>()(() => ({ known: null }));

const isOf = (known: Known, bounds: readonly Bound[]): boolean =>
  known.bounds.length === bounds.length && bounds.every((b, i) => b === known.bounds[i]);

/** Finds the areas of a drawing that are there to be coloured, unless they are known. What fails is left as it was. */
export async function lookForAreas(d: Drawing, gap: number): Promise<void> {
  const bounds = boundsOf(d);
  const { known } = knownAreas.getState();
  if (known && known.gap === gap && isOf(known, bounds)) return;
  const areas = await areasOf(bounds, gap).catch(() => null);
  if (areas) knownAreas.setState({ known: { bounds, gap, areas } });
}

/** How many areas there are, and how many of them have a flat; null where they are not known for these lines. */
export function areasColoured(d: Drawing, known: Known | null): { there: number; coloured: number } | null {
  if (!known || !isOf(known, boundsOf(d))) return null;
  const places = seenFlats(d).flatMap((f) => (f.open ? [] : [f.at]));
  const coloured = known.areas.filter((area) => places.some((p) => outlineHolds(area, p))).length;
  return { there: known.areas.length, coloured };
}
