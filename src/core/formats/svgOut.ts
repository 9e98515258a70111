import { emptyBox, isEmptyBox, joinBoxes } from '../geometry/box';
import type { Box } from '../geometry/point';
import { middleOf, opacityOf } from '../drawing/placement';
import { lineBox } from '../drawing/run';
import type { Drawing, Line, Reference, Sheet } from '../drawing/schema';
import { toUnit } from '../drawing/unit';
import { bodyOf, isPlainStroke } from '../ink/body';
import { decimal, outlineData, pathData } from './pathData';
import { livingData } from './svgLiving';

export type WriteSvgOptions = {
  /** What the picture shows: the whole page (default), or just as much as the lines take. */
  scope?: 'page' | 'drawing';
  /** Whether the references are in it. They are not, unless asked for. */
  reference?: boolean;
  /** Decimals of coordinates, 0 to 12; 3 by default. */
  precision?: number;
  /** The page's ground as a rectangle; not by default. */
  ground?: boolean;
  /** Where a reference's picture, as it is shown, is found; `pictures/<hash>` of the original by default. */
  pictureHref?: (reference: Reference) => string;
};

/**
 * A drawing as SVG 1.1 (which SVG 2 readers read alike): one group a sheet, named, from the bottom up; one `path` a
 * line. Hidden sheets and references are left out. The size is the page's, in its unit; coordinates are page units.
 * @throws RangeError for a precision that is not a whole number from 0 to 12.
 */
export function writeSvg(drawing: Drawing, options: WriteSvgOptions = {}): string {
  const { scope = 'page', reference = false, precision = 3, ground = false } = options;
  const href = options.pictureHref ?? ((r) => `pictures/${r.picture}`);
  if (!Number.isInteger(precision) || precision < 0 || precision > 12) {
    throw new RangeError('the precision must be a whole number from 0 to 12');
  }
  const { page } = drawing;
  const box = viewOf(drawing, scope);
  const n = (v: number) => decimal(v, precision);
  const size = (v: number) => `${decimal(toUnit(v, page.unit), 4)}${page.unit}`;
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const ids = new Set<string>();
  const parts = [
    `<svg xmlns="http://www.w3.org/2000/svg"${reference ? ' xmlns:xlink="http://www.w3.org/1999/xlink"' : ''} width="${size(width)}" height="${size(height)}" viewBox="${n(box.minX)} ${n(box.minY)} ${n(width)} ${n(height)}">`,
  ];
  if (ground && page.ground) {
    parts.push(
      `<rect x="${n(box.minX)}" y="${n(box.minY)}" width="${n(width)}" height="${n(height)}" fill="${page.ground}"/>`,
    );
  }
  if (reference)
    parts.push(
      ...drawing.references.filter((r) => r.visible).map((r) => imageElement(r, opacityOf(drawing, r), href(r), n)),
    );
  for (const sheet of drawing.sheets) {
    if (sheet.visible && sheet.lines.length > 0) parts.push(sheetElement(sheet, ids, precision));
  }
  parts.push('</svg>');
  return `${parts.join('\n')}\n`;
}

/** The part of the plane that is shown. A drawing without visible lines shows its page. */
export function viewOf(drawing: Drawing, scope: 'page' | 'drawing'): Box {
  const page = { minX: 0, minY: 0, maxX: drawing.page.width, maxY: drawing.page.height };
  if (scope === 'page') return page;
  const box = drawing.sheets
    .filter((s) => s.visible)
    .flatMap((s) => s.lines)
    .reduce((b, l) => joinBoxes(b, lineBox(l)), emptyBox);
  return isEmptyBox(box) ? page : box;
}

function sheetElement(sheet: Sheet, ids: Set<string>, precision: number): string {
  return `<g id="${idFor(sheet.name, ids)}">\n<title>${escaped(sheet.name)}</title>\n${linesElement(sheet.lines, precision)}\n</g>`;
}

/** Lines in their painting order; those of a group, which lie next to each other, within an element of its own. */
function linesElement(lines: readonly Line[], precision: number): string {
  const parts: string[] = [];
  let open: readonly string[] = [];
  for (const line of [...lines, null]) {
    const path = line?.groups ?? [];
    let shared = 0;
    while (shared < open.length && open[shared] === path[shared]) shared++;
    parts.push(...open.slice(shared).map(() => '</g>'), ...path.slice(shared).map(() => '<g>'));
    open = path;
    if (line) parts.push(lineElement(line, precision));
  }
  return parts.join('\n');
}

/** How far outlines in a file may lie from the true edge of their stroke, in page units. */
const OUTLINE = 0.01;

function lineElement(line: Line, precision: number): string {
  const s = line.style;
  const n = (v: number): string => decimal(v, precision);
  if (isPlainStroke(line)) {
    const more = [
      s.miterLimit === undefined || s.join !== 'miter' ? '' : ` stroke-miterlimit="${n(s.miterLimit)}"`,
      s.dash ? ` stroke-dasharray="${s.dash.lengths.map(n).join(' ')}" stroke-dashoffset="${n(s.dash.offset)}"` : '',
      s.strokeBelow && s.fill ? ' paint-order="stroke"' : '',
    ].join('');
    return `<path d="${pathData(line, precision)}" fill="${s.fill ?? 'none'}" stroke="${s.colour}" stroke-width="${n(s.width)}" stroke-linecap="${s.cap}" stroke-linejoin="${s.join}"${more}/>`;
  }
  const body = outlineData(bodyOf(line, OUTLINE), precision);
  const stroke = `<path d="${body}" fill="${s.colour}" stroke="none" ${livingData(line, precision, escaped)}/>`;
  if (!s.fill) return stroke;
  const fill = `<path d="${pathData(line, precision)}" fill="${s.fill}" stroke="none" data-part="fill"/>`;
  return s.strokeBelow ? `${stroke}\n${fill}` : `${fill}\n${stroke}`;
}

function imageElement(r: Reference, opacity: number, href: string, n: (v: number) => string): string {
  const m = middleOf(r);
  const isUpright = r.turn === 0 && !r.flipX && !r.flipY;
  const flip = `scale(${r.flipX ? -1 : 1} ${r.flipY ? -1 : 1})`;
  const transform = isUpright
    ? ''
    : ` transform="translate(${n(m.x)} ${n(m.y)}) rotate(${n(r.turn)}) ${flip} translate(${n(-m.x)} ${n(-m.y)})"`;
  const blend = r.blend === 'normal' ? '' : ` style="mix-blend-mode:${r.blend}"`;
  return `<image x="${n(r.at.x)}" y="${n(r.at.y)}" width="${n(r.width)}" height="${n(r.height)}" opacity="${decimal(opacity, 3)}" preserveAspectRatio="none"${transform}${blend} xlink:href="${escaped(href)}"/>`;
}

/** An XML id made of a name, unlike the others. */
function idFor(name: string, taken: Set<string>): string {
  const plain =
    name
      .trim()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-+|-+$/g, '') || 'sheet';
  const base = /^\p{L}/u.test(plain) ? plain : `sheet-${plain}`;
  let id = base;
  for (let k = 2; taken.has(id); k++) id = `${base}-${k}`;
  taken.add(id);
  return id;
}

/** Text made safe for XML: markup escaped, characters that XML 1.0 does not allow left out. */
const escaped = (text: string): string =>
  text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
