import type { Delivery } from '@/core/deliver/delivery';
import { missingPictures } from '../render';
import type { NamedFile } from './wantedFiles';

/** What is not in files that should be, in words: they are made without it. Null where nothing is missing. */
export async function leftOut(
  files: readonly (Pick<NamedFile, 'drawing' | 'beside'> & { readonly wanted: Pick<Delivery, 'reference'> })[],
): Promise<string | null> {
  const counts = files.map(({ drawing, beside, wanted }) => missingPictures(beside ?? [drawing], wanted.reference));
  const missing = Math.max(...(await Promise.all(counts)));
  if (missing === 0) return null;
  return missing === 1 ? 'a picture that is missing or damaged' : `${missing} pictures that are missing or damaged`;
}
