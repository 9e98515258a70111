import { asShown } from '@/core/raster/correction';
import { CorrectionRun } from '@/core/raster/correct';
import type { PictureNode } from '@/core/scene/scene';
import { fetchedPicture, pictureUrl } from './pictureUrl';

/** As large as pictures are shown at most, of the sizes that the server makes. */
const urlOf = (picture: string): string => new URL(pictureUrl(picture, 'screen'), self.location.origin).href;

/** The pictures in the art as bitmaps, corrected, fetched when they are first needed. */
export class ArtPictures {
  private readonly bitmaps = new Map<string, ImageBitmap | 'coming'>();

  constructor(private readonly onNews: () => void) {}

  /** The bitmap of a placed picture; null while it is on its way. */
  readonly of = ({ placed }: PictureNode): ImageBitmap | null => {
    const list = asShown(placed).filter((c) => c.on);
    const key = JSON.stringify([placed.picture, list]);
    const known = this.bitmaps.get(key);
    if (!known) {
      this.bitmaps.set(key, 'coming');
      void this.fetch(placed.picture, placed.pixelWidth, list, key);
    }
    return known instanceof ImageBitmap ? known : null;
  };

  private async fetch(
    picture: string,
    pixelWidth: number,
    list: ReturnType<typeof asShown>,
    key: string,
  ): Promise<void> {
    try {
      const plain = await fetchedPicture(urlOf(picture));
      this.bitmaps.set(key, list.length === 0 ? plain : await corrected(plain, pixelWidth, list));
      this.onNews();
    } catch {
      // Asked for again by whatever is painted after a while.
      setTimeout(() => this.bitmaps.delete(key), 5_000);
    }
  }
}

async function corrected(
  plain: ImageBitmap,
  pixelWidth: number,
  list: ReturnType<typeof asShown>,
): Promise<ImageBitmap> {
  const { width, height } = plain;
  const ctx = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  ctx.drawImage(plain, 0, 0);
  plain.close();
  const image = { width, height, data: ctx.getImageData(0, 0, width, height).data };
  const made = new CorrectionRun(image, width / pixelWidth).after(list);
  return createImageBitmap(new ImageData(made.data as ImageDataArray, made.width, made.height));
}
