import { nanoid } from 'nanoid';
import type { Drawing } from '@/core';
import type { Edit } from '@/core/change/edit';
import { askJson, sendChanges, sendPicture, sendSvg } from '@/bench/state/api';
import { openDrawing } from '@/bench/state/opening';
import { setPage } from '@/core/edits/page';
import { placedReference, placeReference } from '@/core/edits/references';
import { fromUnit } from '@/core/drawing/unit';

export type Page = { width: number; height: number; unit: 'px' | 'mm' | 'in'; dpi: number };

/** Pages to begin with. */
export const pages: Record<string, { label: string; page: Page }> = {
  postcard: { label: 'Postcard, 148 x 105 mm', page: { width: 148, height: 105, unit: 'mm', dpi: 300 } },
  'small sheet': { label: 'A5, 148 x 210 mm', page: { width: 148, height: 210, unit: 'mm', dpi: 300 } },
  'letter sheet': { label: 'Sheet, 210 x 297 mm', page: { width: 210, height: 297, unit: 'mm', dpi: 300 } },
  screen: { label: 'Screen, 1600 x 1000 px', page: { width: 1600, height: 1000, unit: 'px', dpi: 96 } },
};

export const makeDrawing = (title: string, page: Page): Promise<{ id: string }> =>
  askJson('/api/drawings', 'POST', { title, page });

/** The longer side of a page made for a picture, in mm. */
const LONGER_SIDE = 200;

const titleOf = (file: File): string =>
  file.name
    .replace(/\.[^.]+$/, '')
    .replace(/[-_]+/g, ' ')
    .trim()
    .slice(0, 200) || 'Untitled';

/** A drawing made of a file and filled by edits; where it cannot be filled, none is left behind. */
async function filled(
  file: File,
  first: Page,
  edits: (id: string, empty: Drawing) => Promise<Edit[]>,
): Promise<string> {
  const { id } = await makeDrawing(titleOf(file), first);
  try {
    const { drawing, revision } = await openDrawing(id);
    const changes = (await edits(id, drawing)).filter((e) => e.steps.length > 0);
    await sendChanges(
      id,
      revision,
      changes.map((e) => JSON.stringify({ id: nanoid(12), ...e })),
    );
    return id;
  } catch (error) {
    for (const deed of ['bin', 'delete for good'] as const)
      await askJson('/api/drawings', 'PATCH', { ids: [id], deed });
    throw error;
  }
}

/** A drawing with a picture under it, its page as long and wide as the picture's proportions ask. */
export async function makeFromPicture(file: File): Promise<{ id: string }> {
  const first: Page = { width: LONGER_SIDE, height: LONGER_SIDE, unit: 'mm', dpi: 300 };
  const id = await filled(file, first, async (made, drawing) => {
    const taken = await sendPicture(made, file, file.name || 'pasted picture');
    const k = LONGER_SIDE / Math.max(taken.pixelWidth, taken.pixelHeight);
    const side = (px: number): number => fromUnit(Math.max(1, Math.round(px * k * 100) / 100), 'mm');
    const page = { ...drawing.page, width: side(taken.pixelWidth), height: side(taken.pixelHeight) };
    return [setPage(drawing, page, 'Fit page to picture'), placeReference(drawing, placedReference(page, taken))];
  });
  return { id };
}

/**
 * A drawing of what is in an SVG, on a page of its size; `without` names what in it cannot be kept. The server reads it, in a
 * thread of its own. @throws Error for a text that is no SVG, or has nothing in it.
 */
export async function makeFromSvg(file: File): Promise<{ id: string; without: string[] }> {
  const { id, dropped } = await sendSvg(titleOf(file), file);
  return { id, without: dropped.map((d) => d.what) };
}
