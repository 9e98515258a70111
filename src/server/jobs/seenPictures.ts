import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import type { Composition } from '@/core/deliver/composition';
import type { Delivery } from '@/core/deliver/delivery';
import { dataAddress } from '@/core/formats/svg/pictures';
import { greyTable } from '@/core/deliver/shown';
import { leavesOf } from '@/core/scene/scene';
import { correctedFile } from './corrected';

/** Where the pictures of a drawing lie, by their hash, upright and as large as they are wanted. */
export type PictureFiles = Readonly<Record<string, string>>;

/** Where an SVG finds placed pictures: in itself. Null for one that is gone. */
export const hrefsOf =
  (pictures: ReadonlyMap<string, Buffer>) =>
  ({ id }: { readonly id: string }): string | null => {
    const bytes = pictures.get(id);
    return bytes ? dataAddress(bytes) : null;
  };

/** The bytes of all placed pictures that are seen, as they are shown. */
export async function picturesOf(
  { under, art }: Pick<Composition, 'under' | 'art'>,
  { shows, steps }: Pick<Delivery, 'shows' | 'steps'>,
  files: PictureFiles,
  derived: string,
): Promise<Map<string, Buffer>> {
  const found = new Map<string, Buffer>();
  for (const { node } of leavesOf([...under, ...art])) {
    if (node.kind !== 'picture' || found.has(node.placed.id)) continue;
    const plain = files[node.placed.picture];
    if (!plain) continue;
    // One that cannot be read is left out: it is named where it is looked for.
    const bytes = await correctedFile(plain, node.placed, derived)
      .then((file) => readFile(file))
      .catch(() => null);
    if (!bytes) continue;
    found.set(node.placed.id, shows === 'squint' ? await inFewGreys(bytes, steps) : bytes);
  }
  return found;
}

/** A picture in a few greys, as it is squinted at; as much of it is let through as before. */
async function inFewGreys(bytes: Buffer, steps: number): Promise<Buffer> {
  const table = greyTable(steps);
  const image = sharp(bytes).toColourspace('srgb').ensureAlpha();
  const [{ data: greys, info }, alphas] = await Promise.all([
    image.clone().removeAlpha().toColourspace('b-w').raw().toBuffer({ resolveWithObject: true }),
    image.clone().extractChannel('alpha').raw().toBuffer(),
  ]);
  const pixels = Buffer.alloc(2 * greys.length);
  greys.forEach((v, i) => pixels.set([table[v], alphas[i]], 2 * i));
  const { width, height } = info;
  return sharp(pixels, { raw: { width, height, channels: 2 } })
    .png()
    .toBuffer();
}
