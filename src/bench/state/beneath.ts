import { polygonOf } from '@/core/drawing/outline';
import { createStore } from 'zustand/vanilla';
import type { Drawing, Flat, Reference, Run } from '@/core';
import { referenceBeneath } from '@/core/drawing/beneath';
import { pageToShares } from '@/core/drawing/placement';
import type { Beneath } from '@/core/edits/takeColours';
import { correct, sourceOf } from './corrections';

/** What the picture is like beneath flats, kept for as long as neither the flat's outline nor its picture is another. */
type Known = { readonly picture: string; readonly found: Omit<Beneath, 'id'> | null };
const known = new WeakMap<readonly Run[], Known>();

/** What of a reference makes its pixels come to lie where they do. */
const keyOf = ({ picture, corrections, at, width, height, turn, flipX, flipY }: Reference): string =>
  JSON.stringify([picture, corrections, at, width, height, turn, flipX, flipY]);

export const outlinesOn = (r: Reference, runs: readonly Run[]) =>
  runs.map((run) => polygonOf(run).map((p) => pageToShares(r, p)));

/** What the picture is like beneath each of some flats that has one; all are asked for at once. @throws when it cannot be read. */
export async function beneathFlats(d: Drawing, flats: readonly Flat[]): Promise<Beneath[]> {
  const asked = new Map<Reference, Flat[]>();
  const keys = new Map(d.references.map((r) => [r.id, keyOf(r)]));
  const under = new Map(flats.map((f) => [f.id, referenceBeneath(d, f)]));
  for (const f of flats) {
    const r = under.get(f.id);
    if (r && known.get(f.runs)?.picture !== keys.get(r.id)) asked.set(r, [...(asked.get(r) ?? []), f]);
  }
  for (const [r, own] of asked) {
    const areas = own.map((f) => outlinesOn(r, f.runs));
    const found = await correct.areas(sourceOf(r), r.corrections, areas);
    own.forEach((f, i) => known.set(f.runs, { picture: keys.get(r.id)!, found: found[i] }));
  }
  return flats.flatMap((f) => {
    const r = under.get(f.id);
    const own = r && known.get(f.runs);
    return r && own?.found && own.picture === keys.get(r.id) ? [{ id: f.id, ...own.found }] : [];
  });
}

/** The pictures' tones beneath flats as they were found last, for whoever shows them. */
export const tonesBeneath = createStore<{
  readonly found: ReadonlyMap<string, Beneath>;
  readonly failed: boolean;
  /** The flat that is pointed at beside the page; null where none is. */
  readonly pointed: string | null;
}>()(() => ({ found: new Map(), failed: false, pointed: null }));

let asking = 0;

/** Finds them anew for a drawing; what is asked for later counts. */
export async function findTones(d: Drawing, flats: readonly Flat[]): Promise<void> {
  const own = ++asking;
  try {
    const found = await beneathFlats(d, flats);
    if (own === asking) tonesBeneath.setState({ found: new Map(found.map((b) => [b.id, b])), failed: false });
  } catch {
    if (own === asking) tonesBeneath.setState({ failed: true });
  }
}
