import type { Reference } from '@/core';
import { pictureUrl } from '../state/api';

const steps = [
  { size: 'quarter', longest: 1024 },
  { size: 'half', longest: 2048 },
  { size: 'screen', longest: 4096 },
] as const;

/** The pictures of references as bitmaps, in halved sizes, fetched when they are first needed. */
export class PictureStore {
  private readonly bitmaps = new Map<string, ImageBitmap | 'coming' | 'failed'>();

  constructor(
    private readonly onNews: () => void,
    private readonly onFailure: (r: Reference) => void,
  ) {}

  /** The best bitmap at hand for a reference shown `longest` device pixels long; a better one is fetched if need be. */
  bitmapFor(r: Reference, longest: number): ImageBitmap | null {
    const wanted = steps.find((s) => s.longest >= longest) ?? steps[steps.length - 1];
    const exact = this.at(r, wanted.size);
    if (exact) return exact;
    for (const { size } of [...steps].reverse()) {
      const other = this.bitmaps.get(`${r.picture}-${size}`);
      if (other instanceof ImageBitmap) return other;
    }
    return null;
  }

  private at(r: Reference, size: (typeof steps)[number]['size']): ImageBitmap | null {
    const key = `${r.picture}-${size}`;
    const known = this.bitmaps.get(key);
    if (known instanceof ImageBitmap) return known;
    if (!known) {
      this.bitmaps.set(key, 'coming');
      void this.fetch(r, size, key);
    }
    return null;
  }

  private async fetch(r: Reference, size: (typeof steps)[number]['size'], key: string): Promise<void> {
    try {
      const response = await fetch(pictureUrl(r.picture, size));
      if (!response.ok) throw new Error(String(response.status));
      this.bitmaps.set(key, await createImageBitmap(await response.blob()));
      this.onNews();
    } catch {
      this.bitmaps.set(key, 'failed');
      setTimeout(() => this.bitmaps.delete(key), 5_000);
      this.onFailure(r);
    }
  }

  dispose(): void {
    for (const b of this.bitmaps.values()) if (b instanceof ImageBitmap) b.close();
  }
}
