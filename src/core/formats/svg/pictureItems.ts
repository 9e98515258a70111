import type { Item, Picture } from '../../drawing/schema';
import { MOST_PLACE } from '../../drawing/values';
import { mapPoint } from '../../geometry/matrix';
import { lengthOf } from './lengths';
import type { Context, Making } from './making';
import { pictureOf } from './pictures';
import { placeAt } from './placing';
import { withinRectangle } from './rectangle';
import type { SvgElement } from './tree';
import { fitted, fittingOf } from './viewport';

const MOST_SIDE = 1e6;

/** An `image` as a picture in the art (SVG 2, 12.3): one that lies in the file itself, a PNG or JPEG. */
export function pictureItems(making: Making, e: SvgElement, context: Context): readonly Item[] {
  const bytes = pictureOf(e.attributes.href ?? '');
  if (!bytes) {
    const isOutside = !/^\s*data:/i.test((e.attributes.href ?? '').slice(0, 100));
    making.drop(
      'image',
      isOutside ? 'Pictures that lie elsewhere are not looked up.' : 'Only PNG and JPEG in the file itself are read.',
    );
    return [];
  }
  if (!context.look.isVisible || !making.mayMake()) return [];
  const said = making.declaredOf(e);
  const { measures, map } = context;
  const [askedW, askedH] = [lengthOf(said.width, measures, 'x'), lengthOf(said.height, measures, 'y')];
  const width = askedW ?? (askedH === null ? bytes.width : (askedH * bytes.width) / bytes.height);
  const height = askedH ?? (width * bytes.height) / bytes.width;
  if (!(width > 0 && height > 0)) return [];
  const at = placeAt(making, e, measures);
  const fitting = fittingOf(said.preserveAspectRatio);
  const own = fitted({ x: 0, y: 0, width: bytes.width, height: bytes.height }, { width, height }, fitting);
  const [w, h] = [bytes.width * own.a, bytes.height * own.d];
  const [x, y] = [at.x + own.e, at.y + own.f];
  const middle = mapPoint(map, { x: x + w / 2, y: y + h / 2 });
  const [across, down] = [Math.hypot(map.a, map.b) * w, Math.hypot(map.c, map.d) * h];
  const skew = Math.abs(map.a * map.c + map.b * map.d) / (Math.hypot(map.a, map.b) * Math.hypot(map.c, map.d) || 1);
  if (skew > 1e-3) making.drop('skewed pictures', 'A picture stands upright on its side here; it is turned as it was.');
  if (!(across > 0 && down > 0)) return [];
  if (Math.max(across, down) > MOST_SIDE || Math.max(Math.abs(middle.x), Math.abs(middle.y)) > MOST_PLACE - MOST_SIDE) {
    making.drop('what lies too far off', 'It is further out than a drawing reaches.');
    return [];
  }
  making.pictures.set(bytes.hash, bytes);
  const picture: Picture = {
    kind: 'picture',
    id: making.id('p'),
    name: `Picture ${making.pictures.size}`,
    picture: bytes.hash,
    pixelWidth: bytes.width,
    pixelHeight: bytes.height,
    corrections: [],
    at: { x: middle.x - across / 2, y: middle.y - down / 2 },
    width: across,
    height: down,
    turn: (Math.atan2(map.b, map.a) * 180) / Math.PI,
    flipX: false,
    flipY: map.a * map.d - map.b * map.c < 0,
  };
  if (fitting === 'stretch' || !fitting.slice) return [picture];
  return withinRectangle(making, [picture], { ...at, width, height }, map);
}
