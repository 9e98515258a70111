import { MOST_DEEP } from '../../drawing/item';
import { isGroup, linesIn, picturesIn } from '../../drawing/items';
import {
  emptyDrawing,
  firstStyle,
  freshSheet,
  plainPage,
  type Drawing,
  type Item,
  type Page,
  type Sheet,
  units,
} from '../../drawing/schema';
import { tagColours } from '../../edits/sheets';
import { times } from '../../geometry/matrix';
import { Drawer, firstContext } from './drawer';
import { figureOf, lengthOf } from './lengths';
import { Making } from './making';
import { keepBytes, type PictureBytes } from './pictures';
import { placeOf } from './placing';
import { titleOf } from './title';
import { svgTree, type SvgElement } from './tree';
import { fitted, fittingOf, viewBoxOf, type ViewBox } from './viewport';

export type Dropped = { what: string; why: string };
export type ReadSvg = {
  drawing: Drawing;
  /** What could not be kept, named once each, with the reason. */
  dropped: Dropped[];
  /** The pictures that lay in the text, by which the drawing's picture items go. */
  pictures: PictureBytes[];
};

/** A text longer than this is not read, in characters. */
const LONGEST = 60_000_000;
const MOST_SHEETS = 1_000;
const MOST_SIDE = 100_000;

/**
 * An SVG read as a drawing: shapes, strokes, fills, gradients, patterns, groups, clips, simple masks, what is repeated by `use`,
 * and the pictures that lie in it. Groups at the top become sheets. What cannot be kept is named in `dropped`. Nothing outside
 * of the text is ever fetched, nothing is run; it takes time in proportion to the text and to what it draws. Source: SVG 1.1 and
 * 2, CSS Cascade, Selectors, Masking (W3C). @throws RangeError for a text that is no SVG, or too long.
 */
export function readSvg(text: string): ReadSvg {
  if (typeof text !== 'string') throw new RangeError('an SVG is a text');
  if (text.length > LONGEST) throw new RangeError('the SVG is too long to be read');
  const tree = svgTree(text);
  const making = new Making(tree);
  const { page, context, art } = stageOf(making, tree.root);
  const drawer = new Drawer(making);
  const sheets: Sheet[] = [];
  let loose: Item[] = [];
  const lay = (name: string, items: readonly Item[], opacity = 1): void => {
    const kept = shallow(making, items, 0);
    if (kept.length === 0) return;
    const last = sheets.at(-1);
    // Where there would be more than a drawing holds, the rest lies together on the last.
    if (last && sheets.length >= MOST_SHEETS) sheets[sheets.length - 1] = { ...last, items: [...last.items, ...kept] };
    else sheets.push(sheetOf(sheets.length, name, kept, opacity));
  };
  const layLoose = (): void => {
    lay('', loose);
    loose = [];
  };
  for (const e of art.children) {
    const items = drawer.items(e, context);
    const [group] = items;
    if (e.name !== 'g' || items.length !== 1 || !isGroup(group)) {
      for (const item of items) loose.push(item);
      continue;
    }
    layLoose();
    const name = titleOf(e) || e.attributes.id || '';
    // A sheet is cut by nothing, and laid plainly: what is not lies on it as a group.
    if (group.clip || group.blend) lay(name, [group]);
    else lay(name, group.items, group.opacity);
  }
  layLoose();
  return result(making, page, sheets);
}

/** The page, where what is at the top lies on it, and the element that holds the art. */
function stageOf(making: Making, root: SvgElement) {
  const said = making.declaredOf(root);
  const box = viewBoxOf(said.viewBox);
  const page = pageOf(root, box);
  const fit = fitted(box, page, fittingOf(said.preserveAspectRatio));
  const measures = { fontSize: 16, width: box?.width ?? page.width, height: box?.height ?? page.height };
  const first = firstContext(times(placeOf(making, root), fit), measures);
  const context = { ...first, look: making.lookOf(root, first.look, measures) };
  const marked = root.children.find((c) => c.attributes['data-part'] === 'art');
  if (!marked) return { page, context, art: root };
  const look = making.lookOf(marked, context.look, measures);
  return { page, context: { ...context, look }, art: marked };
}

function pageOf(root: SvgElement, box: ViewBox | null): Page {
  const said = (key: 'width' | 'height'): number | null => {
    const length = figureOf(root.attributes[key])?.unit === '%' ? null : lengthOf(root.attributes[key]);
    return length !== null && length > 0 ? length : null;
  };
  const [width, height] = [said('width'), said('height')];
  // Of one that is not told, the other tells (SVG 2, 8.12).
  const ratio = box && box.width / box.height;
  const wide = width ?? (ratio && height ? height * ratio : (box?.width ?? 300));
  const high = height ?? (ratio && width ? width / ratio : (box?.height ?? 150));
  const side = (v: number): number => Math.min(MOST_SIDE, Math.max(1, v));
  const unit = units.find((u) => u === figureOf(root.attributes.width)?.unit);
  return plainPage({ width: side(wide), height: side(high), unit: unit ?? 'px', dpi: 300, ground: null });
}

/** Items with no group deeper than a drawing holds: what is in one that is lies in the one around it. */
function shallow(making: Making, items: readonly Item[], depth: number): readonly Item[] {
  if (!items.some(isGroup)) return items;
  return items.flatMap((item): readonly Item[] => {
    if (!isGroup(item)) return [item];
    if (depth < MOST_DEEP) return [{ ...item, items: shallow(making, item.items, depth + 1) }];
    if (item.clip || item.opacity !== undefined || item.blend)
      making.drop('groups in very many groups', 'What cuts or lets through the innermost is left out.');
    return shallow(making, item.items, depth);
  });
}

function sheetOf(index: number, name: string, items: readonly Item[], opacity: number): Sheet {
  const style = linesIn(items).at(-1)?.style ?? firstStyle;
  const fresh = freshSheet(
    `s${index + 1}`,
    (name || `Sheet ${index + 1}`).slice(0, 200),
    tagColours[index % tagColours.length],
  );
  return {
    ...fresh,
    style: { ...style, fill: null, width: style.width || 1 },
    items,
    ...(opacity < 1 && { opacity }),
  };
}

function result(making: Making, page: Page, sheets: readonly Sheet[]): ReadSvg {
  const first = { id: 's1', name: 'Sheet 1', tag: tagColours[0] };
  const drawing: Drawing = {
    ...emptyDrawing(page, first),
    ...(sheets.length > 0 && { sheets }),
    ...(making.palette.length > 0 && { palette: making.palette }),
    ...(making.gradients.length > 0 && { gradients: making.gradients }),
  };
  for (const picture of drawing.sheets.flatMap((s) => picturesIn(s.items))) {
    const bytes = making.pictures.get(picture.picture);
    if (bytes) keepBytes(picture, bytes);
  }
  const dropped = [...making.dropped].map(([what, why]) => ({ what, why }));
  return { drawing, dropped, pictures: [...making.pictures.values()] };
}
