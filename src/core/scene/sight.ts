import type { Blend, Drawing, Page } from '../drawing/schema';
import { asShown } from '../raster/correction';
import { referencesOf } from './scene';

/** A picture under the work: its file, its place in page units (`turn` degrees about its middle), and how it is laid there. */
export type SeenPicture = {
  readonly hash: string;
  readonly at: { readonly x: number; readonly y: number };
  readonly width: number;
  readonly height: number;
  readonly turn: number;
  readonly flipX: boolean;
  readonly flipY: boolean;
  readonly opacity: number;
  readonly blend: Blend;
};

/** What can be seen of a drawing before any of it is painted: its page, and the pictures under the work, the lowest first. */
export type Sight = {
  readonly page: Pick<Page, 'width' | 'height' | 'ground'>;
  readonly pictures: readonly SeenPicture[];
};

/** The same of a drawing, whatever lies on its sheets. A picture that is to be corrected first is left out. */
export function sightOf(drawing: Pick<Drawing, 'page' | 'references' | 'dim'>): Sight {
  const { width, height, ground } = drawing.page;
  const pictures = referencesOf(drawing)
    .filter(({ placed }) => !asShown(placed).some((c) => c.on))
    .map(({ placed: p, opacity, blend }) => ({
      hash: p.picture,
      at: p.at,
      width: p.width,
      height: p.height,
      turn: p.turn,
      flipX: p.flipX,
      flipY: p.flipY,
      opacity,
      blend,
    }));
  return { page: { width, height, ground }, pictures };
}
