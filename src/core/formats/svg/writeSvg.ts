import { emptyBox, isEmptyBox, joinBoxes } from '../../geometry/box';
import type { Matrix } from '../../geometry/matrix';
import { distance, type Box } from '../../geometry/point';
import { alphaOf, opaque } from '../../colour/colour';
import { seenLines } from '../../drawing/items';
import { middleOf } from '../../drawing/placement';
import { lineBox } from '../../drawing/run';
import type { Drawing, Line } from '../../drawing/schema';
import { toUnit } from '../../drawing/unit';
import { bodyOf, IN_FILES } from '../../ink/body';
import { beforeMap, colourOf, ovalMap, type GradientInk, type Ink } from '../../scene/ink';
import { sceneOf, type LayerNode, type LineNode, type Part, type PictureNode, type Scene } from '../../scene/scene';
import { decimal, outlineData, pathData } from '../pathData';
import { bytesOf, dataAddress } from './pictures';
import { livingData } from './living';

export type WriteSvgOptions = {
  /** What the picture shows: the whole page (default), or just as much as the lines take. */
  scope?: 'page' | 'drawing';
  /** Whether the references are in it. They are not, unless asked for. */
  reference?: boolean;
  /** Decimals of coordinates, 0 to 12; 3 by default. */
  precision?: number;
  /** The page's ground as a rectangle; not by default. */
  ground?: boolean;
  /** Where a placed picture, as it is shown, is found; `pictures/<hash>` of the original by default. */
  pictureHref?: (placed: PictureNode['placed']) => string;
};

/**
 * A drawing as SVG 1.1 (which SVG 2 readers read alike): one group a sheet, named, from the bottom up; groups within it; one
 * `path` a line. Hidden sheets and references are left out. The size is the page's, in its unit; coordinates are page units.
 * @throws RangeError for a precision that is not a whole number from 0 to 12.
 */
export function writeSvg(drawing: Drawing, options: WriteSvgOptions = {}): string {
  const { scope = 'page', reference = false, precision = 3, ground = false } = options;
  const href = options.pictureHref ?? ownAddress;
  if (!Number.isInteger(precision) || precision < 0 || precision > 12) {
    throw new RangeError('the precision must be a whole number from 0 to 12');
  }
  return new Writer(drawing, scope, precision, href).written(reference, ground);
}

/** A picture that came in an SVG is written with its bytes; another by the hash of its original. */
function ownAddress(placed: PictureNode['placed']): string {
  const bytes = bytesOf(placed);
  return bytes ? dataAddress(bytes.bytes) : `pictures/${placed.picture}`;
}

/** The part of the plane that is shown. A drawing without visible lines shows its page. */
export function viewOf(drawing: Drawing, scope: 'page' | 'drawing'): Box {
  const page = { minX: 0, minY: 0, maxX: drawing.page.width, maxY: drawing.page.height };
  if (scope === 'page') return page;
  const box = seenLines(drawing).reduce((b, l) => joinBoxes(b, lineBox(l)), emptyBox);
  return isEmptyBox(box) ? page : box;
}

class Writer {
  private readonly ids = new Set<string>();
  private readonly defs: string[] = [];
  private readonly gradients = new Map<string, string>();

  constructor(
    private readonly drawing: Drawing,
    private readonly scope: 'page' | 'drawing',
    private readonly precision: number,
    private readonly href: (placed: PictureNode['placed']) => string,
  ) {}

  private readonly n = (v: number): string => decimal(v, this.precision);

  written(reference: boolean, ground: boolean): string {
    const { n, drawing } = this;
    const { page } = drawing;
    const box = viewOf(drawing, this.scope);
    const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
    const size = (v: number) => `${decimal(toUnit(v, page.unit), 4)}${page.unit}`;
    const scene = sceneOf(drawing, { references: reference });
    const under = scene.filter((node) => node.kind === 'picture').map((node) => this.picture(node));
    const art = this.scene(scene.filter((node) => node.kind !== 'picture'));
    const own = hasBlends(scene) ? ['<g data-part="art" style="isolation:isolate">', ...art, '</g>'] : art;
    const links = own.some((e) => e.includes('<image')) || under.length > 0;
    return [
      `<svg xmlns="http://www.w3.org/2000/svg"${links ? ' xmlns:xlink="http://www.w3.org/1999/xlink"' : ''} width="${size(width)}" height="${size(height)}" viewBox="${n(box.minX)} ${n(box.minY)} ${n(width)} ${n(height)}">`,
      ...(this.defs.length > 0 ? [`<defs>${this.defs.join('')}</defs>`] : []),
      ...(ground && page.ground
        ? [
            `<rect x="${n(box.minX)}" y="${n(box.minY)}" width="${n(width)}" height="${n(height)}" fill="${page.ground}"/>`,
          ]
        : []),
      ...under,
      ...own,
      '</svg>\n',
    ].join('\n');
  }

  private scene(scene: Scene): string[] {
    return scene.flatMap((node) => {
      if (node.kind === 'layer') return this.layer(node);
      return node.kind === 'line' ? [this.line(node, '')] : [this.picture(node)];
    });
  }

  private layer(layer: LayerNode): string[] {
    const [only] = layer.children;
    // A line's own opacity or blend stands with it.
    if (layer.name === undefined && only?.kind === 'line') return [this.line(only, laying(layer))];
    const inner = this.scene(layer.children);
    if (inner.length === 0) return [];
    const title = layer.name ? [`<title>${escaped(layer.name)}</title>`] : [];
    const id = layer.name ? ` id="${this.idFor(layer.name, 'sheet')}"` : '';
    const clip = layer.clip ? ` clip-path="url(#${this.clip(layer.clip)})"` : '';
    return [`<g${id}${laying(layer)}${clip}>`, ...title, ...inner, '</g>'];
  }

  private clip(line: Line): string {
    const id = this.idFor('clip', 'clip');
    this.defs.push(
      `<clipPath id="${id}"><path d="${pathData(line, this.precision)}"${line.style.fillRule ? ' clip-rule="evenodd"' : ''}/></clipPath>`,
    );
    return id;
  }

  private line({ line, parts }: LineNode, laid: string): string {
    const body = parts.find((p) => p.kind === 'area' && p.within === 'body');
    const area = parts.find((p) => p.kind === 'area' && p.within === 'line');
    const stroke = parts.find((p) => p.kind === 'stroke');
    if (!body) return this.plainLine(line, area, stroke, parts.length > 1 && parts[0] === stroke, laid);
    const outline = outlineData(bodyOf(line, IN_FILES), this.precision);
    const { id, end } = this.named(line);
    const living = `<path${id} d="${outline}"${this.paint('fill', body.ink)} stroke="none" ${livingData(line, this.precision, escaped)}`;
    if (!area) return `${living}${laid}${end}`;
    const fill = `<path d="${pathData(line, this.precision)}"${this.area(area)} stroke="none" data-part="fill"/>`;
    const both = parts[0] === body ? [`${living}${end}`, fill] : [fill, `${living}${end}`];
    return (laid ? [`<g data-part="line"${laid}>`, ...both, '</g>'] : both).join('\n');
  }

  private plainLine(
    line: Line,
    area: Part | undefined,
    stroke: Extract<Part, { kind: 'stroke' }> | undefined,
    isBelow: boolean,
    laid: string,
  ): string {
    const { n } = this;
    const s = stroke ?? line.style;
    const more = [
      s.miterLimit === undefined || s.join !== 'miter' ? '' : ` stroke-miterlimit="${n(s.miterLimit)}"`,
      s.dash ? ` stroke-dasharray="${s.dash.lengths.map(n).join(' ')}" stroke-dashoffset="${n(s.dash.offset)}"` : '',
      isBelow ? ' paint-order="stroke"' : '',
    ].join('');
    const fill = area ? this.area(area) : ' fill="none"';
    // A stroke of no width is written too: its colour and ends come back with it.
    const own = stroke
      ? this.paint('stroke', stroke.ink)
      : this.paint('stroke', colourOf(this.drawing, line.style.stroke, line));
    const { id, end } = this.named(line);
    return `<path${id} d="${pathData(line, this.precision)}"${fill}${own} stroke-width="${n(s.width)}" stroke-linecap="${s.cap}" stroke-linejoin="${s.join}"${more}${laid}${end}`;
  }

  /** What tells a line's name: an id made of it, and the title within its element, which ends with that. */
  private named({ name }: Line): { id: string; end: string } {
    if (!name) return { id: '', end: '/>' };
    return { id: ` id="${this.idFor(name, 'line')}"`, end: `><title>${escaped(name)}</title></path>` };
  }

  private area(part: Part): string {
    const rule = part.kind === 'area' && part.evenOdd ? ' fill-rule="evenodd"' : '';
    return `${this.paint('fill', part.ink)}${rule}`;
  }

  private paint(what: 'fill' | 'stroke', ink: Ink): string {
    if (typeof ink !== 'string') return ` ${what}="url(#${this.gradient(ink)})"`;
    const alpha = alphaOf(ink);
    return ` ${what}="${opaque(ink)}"${alpha < 1 ? ` ${what}-opacity="${decimal(alpha, 4)}"` : ''}`;
  }

  private gradient(ink: GradientInk): string {
    const oval = ovalMap(ink);
    const { kind, from, to, focus, stops } = oval ? beforeMap(ink, oval) : ink;
    // Under a map of its own its places are shares, which want more decimals.
    const n = oval ? (v: number): string => decimal(v, this.precision + 4) : this.n;
    const places =
      kind === 'linear'
        ? `x1="${n(from.x)}" y1="${n(from.y)}" x2="${n(to.x)}" y2="${n(to.y)}"`
        : `cx="${n(from.x)}" cy="${n(from.y)}" r="${n(distance(from, to))}"${focus ? ` fx="${n(focus.x)}" fy="${n(focus.y)}"` : ''}`;
    const mapped = oval ? ` gradientTransform="matrix(${matrixFigures(oval, this.precision)})"` : '';
    const inner = stops.map(({ at, colour }) => {
      const alpha = alphaOf(colour);
      const opacity = alpha < 1 ? ` stop-opacity="${decimal(alpha, 4)}"` : '';
      return `<stop offset="${decimal(at, 4)}" stop-color="${opaque(colour)}"${opacity}/>`;
    });
    // Many items may be painted with one: it is written once.
    const body = `gradientUnits="userSpaceOnUse" ${places}${mapped}>${inner.join('')}</${kind}Gradient>`;
    const known = this.gradients.get(body);
    if (known) return known;
    const id = this.idFor('gradient', 'gradient');
    this.gradients.set(body, id);
    this.defs.push(`<${kind}Gradient id="${id}" ${body}`);
    return id;
  }

  private picture({ placed, opacity, blend }: PictureNode): string {
    const { n } = this;
    const m = middleOf(placed);
    const isUpright = placed.turn === 0 && !placed.flipX && !placed.flipY;
    const flip = `scale(${placed.flipX ? -1 : 1} ${placed.flipY ? -1 : 1})`;
    const transform = isUpright
      ? ''
      : ` transform="translate(${n(m.x)} ${n(m.y)}) rotate(${n(placed.turn)}) ${flip} translate(${n(-m.x)} ${n(-m.y)})"`;
    const blended = blend === 'normal' ? '' : ` style="mix-blend-mode:${blend}"`;
    return `<image x="${n(placed.at.x)}" y="${n(placed.at.y)}" width="${n(placed.width)}" height="${n(placed.height)}" opacity="${decimal(opacity, 3)}" preserveAspectRatio="none"${transform}${blended} xlink:href="${escaped(this.href(placed))}"/>`;
  }

  /** An XML id made of a name, unlike the others. */
  private idFor(name: string, kind: string): string {
    const plain =
      name
        .trim()
        .replace(/[^\p{L}\p{N}]+/gu, '-')
        .replace(/^-+|-+$/g, '') || kind;
    const base = /^\p{L}/u.test(plain) ? plain : `${kind}-${plain}`;
    let id = base;
    for (let k = 2; this.ids.has(id); k++) id = `${base}-${k}`;
    this.ids.add(id);
    return id;
  }
}

/** Whether something in the art is blended: then the art is kept apart from what lies below it. */
const hasBlends = (scene: Scene): boolean =>
  scene.some((node) => node.kind === 'layer' && (node.blend !== 'normal' || hasBlendsWithin(node.children)));
const hasBlendsWithin = (scene: Scene): boolean =>
  scene.some((node) => (node.kind === 'picture' && node.blend !== 'normal') || hasBlends([node]));

const matrixFigures = ({ a, b, c, d, e, f }: Matrix, precision: number): string =>
  [a, b, c, d, e, f].map((v) => decimal(v, precision + 2)).join(' ');

const laying = ({ opacity, blend }: Pick<LayerNode, 'opacity' | 'blend'>): string =>
  `${opacity < 1 ? ` opacity="${decimal(opacity, 4)}"` : ''}${blend === 'normal' ? '' : ` style="mix-blend-mode:${blend}"`}`;

/** Text made safe for XML: markup escaped, characters that XML 1.0 does not allow left out. */
const escaped = (text: string): string =>
  text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
