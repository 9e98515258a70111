import type { Blend, Drawing, Page, Reference } from '../drawing/schema';
import { asShown } from '../raster/correction';
import { referencesOf } from './scene';

/** A picture under the work: its file, its place in page units (`turn` degrees about its middle), and how it is laid there. */
export type SeenPicture = Readonly<
  Pick<Reference, 'picture' | 'at' | 'width' | 'height' | 'turn' | 'flipX' | 'flipY'> & {
    opacity: number;
    blend: Blend;
  }
>;

/** What can be seen of a drawing before any of it is painted: its page, and the pictures under the work, the lowest first. */
export type Sight = {
  readonly page: Pick<Page, 'width' | 'height' | 'ground'>;
  readonly pictures: readonly SeenPicture[];
};

/** The same of a drawing, whatever lies on its sheets. A picture that is to be corrected first is left out. */
export function sightOf(drawing: Pick<Drawing, 'page' | 'references' | 'dim'>): Sight {
  const pictures = referencesOf(drawing)
    .filter(({ placed }) => !asShown(placed).some((c) => c.on))
    .map(({ placed: { picture, at, width, height, turn, flipX, flipY }, opacity, blend }) => ({
      ...{ picture, at, width, height, turn, flipX, flipY },
      ...{ opacity, blend },
    }));
  const { width, height, ground } = drawing.page;
  return { page: { width, height, ground }, pictures };
}
