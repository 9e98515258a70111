import { ABOUT_DRAWING } from '@/core/formats/aboutDrawing';
import type { PackedDrawing } from './tileProtocol';

/**
 * What a painter whose name is the address of a packed drawing asks for; null within where it does not come, the page then asks for it
 * by itself. A painter imports this first: it is under way while the rest of the painter comes to life.
 */
export const ownDrawing: Promise<PackedDrawing | null> | null = self.name ? fetched(self.name).catch(() => null) : null;

async function fetched(url: string): Promise<PackedDrawing | null> {
  const response = await fetch(url);
  const about = response.headers.get(ABOUT_DRAWING);
  return response.ok && about !== null ? { about, bytes: await response.arrayBuffer() } : null;
}
