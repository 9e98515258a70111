import { growBox } from '../geometry/box';
import { scalingAbout } from '../geometry/matrix';
import type { Box } from '../geometry/point';
import type { Drawing } from '../drawing/schema';
import { referencesOf, sceneOf, type LineNode, type Scene } from '../scene/scene';
import { chosenOnly } from './chosen';
import { held, moved, ruled, wrapped, type Composition, type Piece } from './composition';
import { lookOf, type Delivery } from './delivery';
import { onPaper, type Lettering } from './paper';
import { shownOf, withFlatsApart, withoutPictures } from './shown';
import { viewOf } from './view';

export type ComposeOptions = {
  /** The title's outlines, for a paper that shows one. */
  readonly lettering?: Lettering;
  /** Drawings that share a paper, in place of the one. */
  readonly beside?: readonly Drawing[];
  /** What is seen of a drawing, where that is not all of it as it lies. */
  readonly seen?: (drawing: Drawing) => Scene;
};

/** What is in a file, and where. */
export function composed(whole: Drawing, wanted: Delivery, options: ComposeOptions = {}): Composition {
  const drawing = contentOf(whole, wanted);
  if (wanted.paper) {
    const parts = (options.beside ?? [whole]).map((d) => pieceOf(contentOf(d, wanted), wanted, options.seen));
    return onPaper(drawing, wanted.paper, parts, {
      ground: wanted.ground,
      isRepeated: !options.beside,
      lettering: options.lettering,
    });
  }
  const { view, under, art } = pieceOf(drawing, wanted, options.seen);
  const { ground, unit } = drawing.page;
  const isCut = wanted.bleed > 0 || wanted.marks;
  const bleed = growBox(view, wanted.bleed);
  const within = isCut ? [held(bleed)] : [];
  return {
    drawing,
    under: wrapped(under, within),
    art: wrapped(art, within),
    over: wanted.marks ? cutMarks(view, wanted.bleed) : [],
    box: wanted.marks ? growBox(view, Math.max(wanted.bleed, MARK_GAP) + MARK_LENGTH + MARK_GAP) : bleed,
    ground: wanted.ground && ground ? { box: bleed, colour: ground } : null,
    cut: isCut ? { trim: view, bleed } : null,
    unit,
  };
}

function pieceOf(drawing: Drawing, wanted: Delivery, seen: (d: Drawing) => Scene = sceneOf): Piece {
  const view = viewOf(drawing, wanted.scope);
  const scene = seen(drawing);
  const look = lookOf(wanted);
  const apart = look.flats === 'apart' ? withFlatsApart(scene, drawing) : scene;
  const art = shownOf(look.pictures ? apart : withoutPictures(apart), wanted);
  const under = wanted.reference ? referencesOf(drawing) : [];
  if (!wanted.mirror) return { view, under, art };
  const mirror = scalingAbout({ x: (view.minX + view.maxX) / 2, y: 0 }, -1, 1);
  return { view, under: wrapped(under, [moved(mirror)]), art: wrapped(art, [moved(mirror)]) };
}

const contentOf = (drawing: Drawing, { scope, chosen }: Delivery): Drawing =>
  scope === 'chosen' ? chosenOnly(drawing, new Set(chosen)) : drawing;

/** Marks of the cut: 4 mm long, beginning 1 mm outside of what may be seen, a quarter of a point wide. */
const [MARK_LENGTH, MARK_GAP, MARK_WIDTH] = [(4 * 96) / 25.4, 96 / 25.4, 1 / 3];

function cutMarks(trim: Box, bleed: number): Scene {
  const from = Math.max(bleed, MARK_GAP);
  const to = from + MARK_LENGTH;
  return [-1, 1].flatMap((sx) =>
    [-1, 1].flatMap((sy): LineNode[] => {
      const [x, y] = [sx < 0 ? trim.minX : trim.maxX, sy < 0 ? trim.minY : trim.maxY];
      return [
        ruled(
          [
            { x: x + sx * from, y },
            { x: x + sx * to, y },
          ],
          MARK_WIDTH,
        ),
        ruled(
          [
            { x, y: y + sy * from },
            { x, y: y + sy * to },
          ],
          MARK_WIDTH,
        ),
      ];
    }),
  );
}
