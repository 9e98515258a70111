import { outlineOf } from '@/core/drawing/outline';
import { nanoid } from 'nanoid';
import type { Edit } from '@/core/change/edit';
import { referenceBeneath } from '@/core/drawing/beneath';
import { findItem } from '@/core/drawing/find';
import { runFromCubics } from '@/core/drawing/fromCubics';
import { sharesToPage } from '@/core/drawing/placement';
import { layShades, type ShadeHow } from '@/core/edits/shades';
import type { Cubic } from '@/core';
import { outlinesOn } from '../state/beneath';
import { correct, sourceOf } from '../state/corrections';
import type { Bench } from '../state/store';
import { tellOf } from './telling';

/** How far curves may run from what is found, as a share of what is smoothed away. */
const TOLERANCE = 0.25;

/**
 * What pulling the picture's tones into a flat would do, and how many shapes these are; null, and told, where it cannot be
 * done. `smooth` is what is smoothed away, page units.
 */
export async function tonesToPull(
  bench: Bench,
  shape: string,
  { steps, smooth, how }: { steps: number; smooth: number; how: ShadeHow },
): Promise<{ edit: Edit; parts: number } | null> {
  const { drawing } = bench.getState();
  const item = findItem(drawing, shape)?.item;
  const runs = item && outlineOf(item);
  const r = runs && referenceBeneath(drawing, { runs });
  if (!runs || !r) return tellOf(bench, 'There is no picture beneath this flat to pull tones from.');
  const options = { steps, smooth: smooth / r.width, tolerance: (TOLERANCE * smooth) / r.width };
  const found = await correct
    .pullTones(sourceOf(r), r.corrections, outlinesOn(r, runs), options)
    .catch(() => 'failed' as const);
  if (found === 'failed') return tellOf(bench, 'The picture could not be read. Nothing was changed.', 'warning');
  if (bench.getState().drawing !== drawing) return tellOf(bench, 'The drawing has changed meanwhile. Ask once more.');
  if (!found || found.parts.length === 0)
    return tellOf(bench, 'The picture is of one tone here: there is nothing to pull.');
  const onPage = (c: Cubic): Cubic =>
    c.map((p) => sharesToPage(r, { x: p.x / found.width, y: p.y / found.height })) as Cubic;
  const shades = found.parts.map(({ loops, tone }) => ({
    runs: loops.map((l) => runFromCubics(l.map(onPage), true)),
    by: found.tone - tone,
  }));
  const edit = layShades(drawing, shape, shades, how, () => nanoid(12));
  return { edit: { ...edit, label: 'Pull tones' }, parts: shades.length };
}
