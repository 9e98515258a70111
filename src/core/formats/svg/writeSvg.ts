import type { Matrix } from '../../geometry/matrix';
import { distance } from '../../geometry/point';
import { composed } from '../../deliver/composed';
import { hasBlends, type Composition } from '../../deliver/composition';
import { firstDelivery, plainSvgLook, type SvgLook } from '../../deliver/delivery';
import { middleOf } from '../../drawing/placement';
import type { Drawing, Line, Paint } from '../../drawing/schema';
import { toUnit } from '../../drawing/unit';
import { bodyOf, IN_FILES } from '../../ink/body';
import { beforeMap, colourOf, ovalMap, type GradientInk, type Ink } from '../../scene/ink';
import { isFill } from '../../scene/halves';
import type { LayerNode, LineNode, Part, PictureNode, Scene } from '../../scene/scene';
import { decimal, outlineData, pathData } from '../pathData';
import { bytesOf, dataAddress } from './pictures';
import { livingData } from './living';
import { SwatchStyles } from './swatchStyles';

export type WriteSvgOptions = {
  /** What the picture shows: the whole page (default), or just as much as the drawing takes. */
  scope?: 'page' | 'drawing';
  /** Whether the references are in it. They are not, unless asked for. */
  reference?: boolean;
  /** Decimals of coordinates, 0 to 12; 3 by default. */
  precision?: number;
  /** The page's ground as a rectangle; not by default. */
  ground?: boolean;
  /** Where a placed picture, as it is shown, is found; `pictures/<hash>` of the original by default. Null: it is left out. */
  pictureHref?: (placed: PictureNode['placed']) => string | null;
};

/**
 * A drawing as SVG 1.1 (which SVG 2 readers read alike): one group a sheet, named, from the bottom up; groups within it; one
 * `path` a line. Hidden sheets and references are left out. The size is the page's, in its unit; coordinates are page units.
 * @throws RangeError for a precision that is not a whole number from 0 to 12.
 */
export function writeSvg(drawing: Drawing, options: WriteSvgOptions = {}): string {
  const { scope = 'page', reference = false, precision = 3, ground = false } = options;
  if (!Number.isInteger(precision) || precision < 0 || precision > 12) {
    throw new RangeError('the precision must be a whole number from 0 to 12');
  }
  const composition = composed(drawing, { ...firstDelivery, scope, reference, ground });
  return writeComposition(composition, { ...plainSvgLook, decimals: precision }, { pictureHref: options.pictureHref });
}

export type WriteCompositionOptions = Pick<WriteSvgOptions, 'pictureHref'> & {
  /** Of the document; one without a title has none. */
  title?: string;
};

/** What a file shows as SVG, in the look that is wanted. */
export const writeComposition = (c: Composition, look: SvgLook, options: WriteCompositionOptions = {}): string =>
  new Writer(c, look, options.pictureHref).written(options.title);

/** A picture that came in an SVG is written with its bytes; another by the hash of its original. */
function ownAddress(placed: PictureNode['placed']): string {
  const bytes = bytesOf(placed);
  return bytes ? dataAddress(bytes.bytes) : `pictures/${placed.picture}`;
}

/** Writes what a file shows. */
export class Writer {
  private readonly ids = new Set<string>();
  protected readonly defs: string[] = [];
  /** Rules of the style sheet beside those of swatches. */
  protected readonly rules: string[] = [];
  private readonly gradients = new Map<string, string>();
  private readonly swatches: SwatchStyles;
  protected readonly precision: number;

  constructor(
    private readonly composition: Composition,
    private readonly look: SvgLook,
    private readonly href: (placed: PictureNode['placed']) => string | null = ownAddress,
  ) {
    this.precision = look.decimals;
    this.swatches = new SwatchStyles(composition.drawing, look.colours);
  }

  protected readonly n = (v: number): string => decimal(v, this.precision);

  written(title?: string): string {
    const { n } = this;
    const { box, ground, unit, under, art, over } = this.composition;
    const size = (v: number) => `${decimal(toUnit(v, unit), 4)}${unit}`;
    const below = this.scene(under);
    const own = this.scene(art);
    const apart = hasBlends(art) ? ['<g data-part="art" style="isolation:isolate">', ...own, '</g>'] : own;
    const above = this.scene(over);
    const links = [...below, ...own].some((e) => e.includes('<image'));
    const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
    const styles = [...this.rules, this.swatches.sheet()].join('');
    return [
      `<svg xmlns="http://www.w3.org/2000/svg"${links ? ' xmlns:xlink="http://www.w3.org/1999/xlink"' : ''} width="${size(width)}" height="${size(height)}" viewBox="${n(box.minX)} ${n(box.minY)} ${n(width)} ${n(height)}">`,
      ...(title && this.look.metadata ? [`<title>${escaped(title)}</title>`] : []),
      ...(styles ? [`<style>${styles}</style>`] : []),
      ...(this.defs.length > 0 ? [`<defs>${this.defs.join('')}</defs>`] : []),
      ...(ground
        ? [
            `<rect x="${n(ground.box.minX)}" y="${n(ground.box.minY)}" width="${n(ground.box.maxX - ground.box.minX)}" height="${n(ground.box.maxY - ground.box.minY)}" fill="${ground.colour}"/>`,
          ]
        : []),
      ...below,
      ...apart,
      ...above,
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
    if (layer.name === undefined && only?.kind === 'line' && !layer.clip && !layer.map)
      return [this.line(only, laying(layer))];
    const inner = this.scene(layer.children);
    if (inner.length === 0) return [];
    const title = layer.name && this.look.metadata ? [`<title>${escaped(layer.name)}</title>`] : [];
    const id = layer.name ? ` id="${this.idFor(layer.name, 'sheet')}"` : '';
    const clip = layer.clip ? ` clip-path="url(#${this.clip(layer.clip)})"` : '';
    const map = layer.map ? ` transform="matrix(${matrixFigures(layer.map, this.precision + 2)})"` : '';
    return [`<g${id}${laying(layer)}${clip}${map}>`, ...title, ...inner, '</g>'];
  }

  private clip(line: Line): string {
    const id = this.idFor('clip', 'clip');
    this.defs.push(
      `<clipPath id="${id}"><path d="${pathData(line, this.precision)}"${line.style.fillRule ? ' clip-rule="evenodd"' : ''}/></clipPath>`,
    );
    return id;
  }

  private line(node: LineNode, laid: string): string {
    return this.swatches.merged(this.drawn(node, laid));
  }

  protected drawn({ line, parts }: LineNode, laid: string): string {
    const body = parts.find((p) => p.kind === 'area' && p.within === 'body');
    const area = parts.find(isFill);
    const stroke = parts.find((p) => p.kind === 'stroke');
    const isBelow = parts.length > 1 && parts[0] === stroke;
    if (!body && stroke && this.outlines) return this.outlined(line, stroke.ink, area, isBelow, '', laid);
    if (!body) return this.plainLine(line, area, stroke, isBelow, laid);
    const living = this.look.metadata && !this.outlines ? ` ${livingData(line, this.precision, escaped)}` : '';
    return this.outlined(line, body.ink, area, parts[0] === body, living, laid);
  }

  /** A stroke as the outline of its body, beside its fill. `living` tells what the outline was made from. */
  private outlined(
    line: Line,
    ink: Ink,
    area: Part | undefined,
    isBelow: boolean,
    living: string,
    laid: string,
  ): string {
    const outline = outlineData(bodyOf(line, IN_FILES), this.precision);
    const { id, end } = this.named(line);
    const stroke = `<path${id} d="${outline}"${this.paint('fill', ink, line.style.stroke)} stroke="none"${living}`;
    if (!area) return `${stroke}${laid}${end}`;
    const part = living ? ' data-part="fill"' : '';
    const fill = `<path d="${pathData(line, this.precision)}"${this.area(area, line)} stroke="none"${part}/>`;
    const both = isBelow ? [`${stroke}${end}`, fill] : [fill, `${stroke}${end}`];
    return (laid ? [`<g${living && ' data-part="line"'}${laid}>`, ...both, '</g>'] : both).join('\n');
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
    const fill = area ? this.area(area, line) : ' fill="none"';
    const { id, end } = this.named(line);
    if (!stroke && this.outlines) return `<path${id} d="${pathData(line, this.precision)}"${fill}${laid}${end}`;
    // A stroke of no width is written too: its colour and ends come back with it.
    const own = this.paint(
      'stroke',
      stroke?.ink ?? colourOf(this.composition.drawing, line.style.stroke, line),
      line.style.stroke,
    );
    return `<path${id} d="${pathData(line, this.precision)}"${fill}${own} stroke-width="${n(s.width)}" stroke-linecap="${s.cap}" stroke-linejoin="${s.join}"${more}${laid}${end}`;
  }

  /** What tells a line's name: an id made of it, and the title within its element, which ends with that. */
  private named({ name }: Line): { id: string; end: string } {
    if (!name) return { id: '', end: '/>' };
    const end = this.look.metadata ? `><title>${escaped(name)}</title></path>` : '/>';
    return { id: ` id="${this.idFor(name, 'line')}"`, end };
  }

  protected area(part: Part, line: Line): string {
    const rule = part.kind === 'area' && part.evenOdd ? ' fill-rule="evenodd"' : '';
    return `${this.paint('fill', part.ink, line.style.fill)}${rule}`;
  }

  protected paint(what: 'fill' | 'stroke', ink: Ink, paint: Paint | null): string {
    if (typeof ink !== 'string') return ` ${what}="url(#${this.gradient(ink)})"`;
    return this.swatches.attribute(what, ink, paint);
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
    const { gradients } = this.composition.drawing;
    const kept = gradients?.find((g) => g.id === ink.id)?.stops;
    const paintAt = (i: number): Paint | null => kept?.[i]?.colour ?? null;
    const inner = stops.map(({ at, colour }, i) => {
      return `<stop offset="${decimal(at, 4)}"${this.swatches.attribute('stop-color', colour, paintAt(i))}/>`;
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
    const href = this.href(placed);
    if (href === null) return '';
    const m = middleOf(placed);
    const isUpright = placed.turn === 0 && !placed.flipX && !placed.flipY;
    const flip = `scale(${placed.flipX ? -1 : 1} ${placed.flipY ? -1 : 1})`;
    const transform = isUpright
      ? ''
      : ` transform="translate(${n(m.x)} ${n(m.y)}) rotate(${n(placed.turn)}) ${flip} translate(${n(-m.x)} ${n(-m.y)})"`;
    const blended = blend === 'normal' ? '' : ` style="mix-blend-mode:${blend}"`;
    const motion = this.pictureMotion(placed.id);
    const image = `<image x="${n(placed.at.x)}" y="${n(placed.at.y)}" width="${n(placed.width)}" height="${n(placed.height)}" opacity="${decimal(opacity, 3)}" preserveAspectRatio="none"${transform}${blended} xlink:href="${escaped(href)}"/>`;
    return motion ? `<g${motion}>${image}</g>` : image;
  }

  private get outlines(): boolean {
    return this.look.strokes === 'outlines';
  }

  /** How a picture comes, where it does. */
  protected pictureMotion(_id: string): string {
    return '';
  }

  /** An XML id made of a name, unlike the others. */
  protected idFor(name: string, kind: string): string {
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

const matrixFigures = ({ a, b, c, d, e, f }: Matrix, precision: number): string =>
  [a, b, c, d, e, f].map((v) => decimal(v, precision + 2)).join(' ');

const laying = ({ opacity, blend }: Pick<LayerNode, 'opacity' | 'blend'>): string =>
  `${opacity < 1 ? ` opacity="${decimal(opacity, 4)}"` : ''}${blend === 'normal' ? '' : ` style="mix-blend-mode:${blend}"`}`;

/** Text made safe for XML: markup escaped, characters that XML 1.0 does not allow left out. */
const escaped = (text: string): string =>
  text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
