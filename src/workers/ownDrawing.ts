import { ABOUT_DRAWING } from '@/core/formats/aboutDrawing';
import type { PackedDrawing } from './tileProtocol';

/**
 * What a painter whose name is the address of a packed drawing asks for; null within where it does not come, the page then asks for it
 * by itself. It is asked for when the painter has come to life, which takes less than to ask on the way: where somebody looks on,
 * whoever asks is told of, and all that is running is read once more for that.
 */
export const ownDrawing: Promise<PackedDrawing | null> | null = self.name
  ? Promise.resolve(self.name)
      .then(fetched)
      .catch(() => null)
  : null;

async function fetched(url: string): Promise<PackedDrawing | null> {
  const response = await fetch(url);
  const about = response.headers.get(ABOUT_DRAWING);
  return response.ok && about !== null ? { about, bytes: await response.arrayBuffer() } : null;
}
