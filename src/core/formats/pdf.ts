import { alphaOf, opaque } from '../colour/colour';
import { hasBlends, type Composition } from '../deliver/composition';
import { middleOf } from '../drawing/placement';
import { traceCubics, traceLine } from '../drawing/trace';
import { distance, type Box } from '../geometry/point';
import { bodyOf, IN_FILES } from '../ink/body';
import { beforeMap, ovalMap, type GradientInk, type Ink } from '../scene/ink';
import type { LayerNode, LineNode, Part, PictureNode, Scene } from '../scene/scene';
import { asGroup, asOptionalLayer, type PdfDocument } from './pdfGroups';

/** Points of a PDF (72 to the inch) a page unit (96 to the inch). */
export const POINTS = 0.75;
/** Bounds of a PDF's stitching function rise: stops in one place lie this far apart. */
const APART = 1e-5;

/** What gives a placed picture's bytes, PNG or JPEG, corrected; null where there are none. */
export type PdfPictures = (placed: PictureNode['placed']) => Uint8Array | null;

/**
 * Paints what a file shows onto a PDF's page whose size is the box's, 0.75 points a page unit: lines as paths, strokes live
 * where they are plain, gradients, clips, opacity and blends by the file's own means (ISO 32000-1, 8 and 11), each sheet as an
 * optional layer under its name; where it is cut, and how far colour reaches beyond, as the page's boxes (14.11.2).
 */
export function paintPdf(
  doc: PdfDocument,
  { under, art, over, box, ground, cut }: Composition,
  pictures: PdfPictures,
): void {
  if (cut)
    for (const [name, b] of [
      ['TrimBox', cut.trim],
      ['BleedBox', cut.bleed],
    ] as const)
      doc.page.dictionary.data[name] = pageBox(b, box);
  doc.save();
  doc.transform(POINTS, 0, 0, POINTS, -box.minX * POINTS, -box.minY * POINTS);
  if (ground) {
    const { minX, minY, maxX, maxY } = ground.box;
    doc.rect(minX, minY, maxX - minX, maxY - minY).fill(ground.colour);
  }
  const painter = new Painter(doc, pictures);
  painter.scene(under);
  // What is blended in the art does not touch what lies below it.
  if (hasBlends(art) && (ground || under.length > 0)) asGroup(doc, 1, 'normal', () => painter.scene(art, true));
  else painter.scene(art, true);
  painter.scene(over);
  doc.restore();
}

/** A box of the plane in a PDF's points, whose y goes up. */
const pageBox = (b: Box, whole: Box): number[] =>
  [b.minX - whole.minX, whole.maxY - b.maxY, b.maxX - whole.minX, whole.maxY - b.minY].map((v) => v * POINTS);

/** The library's types leave it out. */
type Movable = { setTransform(a: number, b: number, c: number, d: number, e: number, f: number): void };

class Painter {
  constructor(
    private readonly doc: PdfDocument,
    private readonly pictures: PdfPictures,
  ) {}

  scene(scene: Scene, isTop = false): void {
    for (const node of scene) {
      if (node.kind === 'line') this.line(node);
      else if (node.kind === 'picture') this.picture(node);
      else if (isTop && node.name) asOptionalLayer(this.doc, node.name, () => this.layer(node, false));
      else this.layer(node, isTop && !node.name);
    }
  }

  private layer(layer: LayerNode, isTop: boolean): void {
    const { doc } = this;
    if (layer.children.length === 0) return;
    doc.save();
    if (layer.map) {
      const { a, b, c, d, e, f } = layer.map;
      doc.transform(a, b, c, d, e, f);
    }
    if (layer.clip) {
      traceLine(doc, layer.clip);
      doc.clip(layer.clip.style.fillRule === 'evenodd' ? 'even-odd' : 'non-zero');
    }
    const isOwn = layer.opacity < 1 || layer.blend !== 'normal';
    if (isOwn) asGroup(doc, layer.opacity, layer.blend, () => this.scene(layer.children));
    else this.scene(layer.children, isTop);
    doc.restore();
  }

  private line(node: LineNode): void {
    for (const part of node.parts) this.part(node, part);
  }

  private part({ line }: LineNode, part: Part): void {
    const { doc } = this;
    doc.save();
    if (part.kind === 'area') {
      this.ink(part.ink, false);
      if (part.within === 'line') traceLine(doc, line);
      else for (const outline of bodyOf(line, IN_FILES)) if (outline.length > 0) traceCubics(doc, outline, true);
      doc.fill(part.evenOdd ? 'even-odd' : 'non-zero');
    } else {
      this.ink(part.ink, true);
      doc
        .lineWidth(part.width)
        .lineCap(part.cap)
        .lineJoin(part.join)
        .miterLimit(part.miterLimit ?? 4);
      if (part.dash) this.dash(part.dash.lengths, part.dash.offset);
      traceLine(doc, line);
      doc.stroke();
    }
    doc.restore();
  }

  private dash(lengths: readonly number[], offset: number): void {
    const all = lengths.length % 2 === 1 ? [...lengths, ...lengths] : [...lengths];
    const whole = all.reduce((a, b) => a + b, 0);
    // An offset below 0 is not known to a PDF.
    const phase = whole > 0 ? ((offset % whole) + whole) % whole : 0;
    this.doc.addContent(`[${all.map((v) => Math.round(v * 1e4) / 1e4).join(' ')}] ${Math.round(phase * 1e4) / 1e4} d`);
  }

  private ink(ink: Ink, isStroke: boolean): void {
    const { doc } = this;
    if (typeof ink === 'string') {
      const [colour, alpha] = [opaque(ink), alphaOf(ink)];
      if (isStroke) doc.strokeColor(colour, alpha);
      else doc.fillColor(colour, alpha);
      return;
    }
    const gradient = this.gradient(ink);
    if (isStroke) doc.strokeColor(gradient as never, 1);
    else doc.fillColor(gradient as never, 1);
  }

  private gradient(ink: GradientInk): PDFKit.PDFGradient {
    const oval = ovalMap(ink);
    const { kind, from, to, focus = from, stops } = oval ? beforeMap(ink, oval) : ink;
    const made =
      kind === 'linear'
        ? this.doc.linearGradient(from.x, from.y, to.x, to.y)
        : this.doc.radialGradient(focus.x, focus.y, 0, from.x, from.y, distance(from, to));
    if (oval) (made as unknown as Movable).setTransform(oval.a, oval.b, oval.c, oval.d, oval.e, oval.f);
    let last = -APART;
    const whole = stops[0].at > 0 ? [{ ...stops[0], at: 0 }, ...stops] : stops;
    for (const { at, colour } of whole) {
      last = Math.min(1, Math.max(at, last + APART));
      made.stop(last, opaque(colour), alphaOf(colour));
    }
    const { colour } = stops.at(-1)!;
    if (last < 1) made.stop(1, opaque(colour), alphaOf(colour));
    return made;
  }

  private picture({ placed, opacity, blend }: PictureNode): void {
    const bytes = this.pictures(placed);
    if (!bytes) return;
    const { doc } = this;
    const draw = (): void => {
      const m = middleOf(placed);
      doc.save();
      doc.translate(m.x, m.y).rotate(placed.turn);
      doc.scale(placed.flipX ? -1 : 1, placed.flipY ? -1 : 1);
      doc.image(Buffer.from(bytes), -placed.width / 2, -placed.height / 2, {
        width: placed.width,
        height: placed.height,
      });
      doc.restore();
    };
    if (opacity < 1 || blend !== 'normal') asGroup(doc, opacity, blend, draw);
    else draw();
  }
}
