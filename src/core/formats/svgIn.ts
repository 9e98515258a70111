import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { tagColours } from '../edits/sheets';
import { linesIn } from '../drawing/items';
import { MOST_DEEP as DEEPEST_GROUP, type Item } from '../drawing/item';
import type { Laying } from '../drawing/paint';
import { emptyDrawing, freshSheet, plainPage, type Drawing, type Line, type Sheet, type Unit } from '../drawing/schema';
import { growthOf, identity, times, type Matrix } from '../geometry/matrix';
import { livingOf } from './svgLiving';
import { grownStroke } from '../ink/grown';
import { outlineOf, runsOf } from './svgShapes';
import { transformOf } from './svgTransform';
import { rulesOf, type Rules } from './css';
import { firstLook, lengthOf, lookOf, styleOf, type Look } from './svgStyle';

export type Dropped = { what: string; why: string };

/** A text longer than this is not read, in characters. */
const LONGEST = 60_000_000;
const MOST_LINES = 100_000;
const MOST_DEEP = 200;

/** Elements whose contents draw nothing of themselves. */
const notDrawn = new Set([
  'defs',
  'clipPath',
  'mask',
  'symbol',
  'marker',
  'pattern',
  'linearGradient',
  'radialGradient',
  'filter',
  'metadata',
]);
const whyDropped: Record<string, string> = {
  script: 'Nothing in a picture is ever run.',
  foreignObject: 'It is not drawn by SVG itself.',
  image: 'Pictures are brought in by themselves, as references.',
  text: 'Letters have to be turned into paths first.',
  use: 'Repeated parts have to be turned into paths first.',
  animate: 'A drawing does not move.',
};

type Element = {
  name: string;
  look: Look;
  transform: Matrix;
  depth: number;
  skip: boolean;
  group: OpenGroup | null;
  part?: string;
  /** The line that it is drawn as. */
  line?: { name?: string };
};
/** A group while it is read; what is in it is known when it closes. */
type OpenGroup = Laying & { name: string; items: Item[] };
type OpenSheet = { name: string; items: Item[]; isGroup: boolean; opacity?: number };

/**
 * An SVG read as a drawing of lines: paths and basic shapes with their plain strokes and fills. Groups at the top become
 * sheets, those within them groups. What cannot be kept is named in `dropped`, once each, with the reason. Nothing
 * outside the text is ever fetched, no entity is expanded, nothing is run. Source: SVG 1.1 and 2, W3C.
 * @throws RangeError for a text that is no SVG, or too long.
 */
export function readSvg(text: string): { drawing: Drawing; dropped: Dropped[] } {
  if (text.length > LONGEST) throw new RangeError('the SVG is too long to be read');
  const reader = new Reader(rulesIn(text));
  reader.read(text);
  return reader.result();
}

/** The style sheets of a text, read first: they may come after what they are for. */
function rulesIn(text: string): Rules {
  if (!/<(?:svg:)?style/i.test(text)) return new Map();
  const blocks: string[] = [];
  let [depth, within] = [0, 0];
  const add = (t: string): void => void (within > 0 && blocks.push(t));
  parse(text, (parser) => {
    parser.on('opentag', ({ name }) => {
      if (++depth > MOST_DEEP) throw tooDeep();
      if (within > 0 || plainName(name) === 'style') within++;
    });
    parser.on('closetag', () => {
      depth--;
      within = Math.max(0, within - 1);
    });
    parser.on('text', add);
    parser.on('cdata', add);
  });
  return rulesOf(blocks.join('\n'));
}

const plainName = (name: string): string => name.replace(/^svg:/, '');
const tooDeep = (): RangeError => new RangeError('the SVG is nested too deeply to be read');

/** Reads a text with what hears of its parts. @throws RangeError for one that is no sound XML. */
function parse(text: string, listen: (parser: SaxesParser) => void): void {
  const parser = new SaxesParser();
  parser.on('error', (e) => {
    throw new RangeError(`this is not a sound SVG: ${e.message}`);
  });
  listen(parser);
  parser.write(text.replace(/^\uFEFF/, '')).close();
}

class Reader {
  private readonly stack: Element[] = [];
  private readonly dropped = new Map<string, string>();
  private readonly sheets: OpenSheet[] = [];
  /** How deep the elements lie that become sheets: one deeper where all of the art is in one element. */
  private top = 1;
  private page = plainPage({ width: 300, height: 150, unit: 'px', dpi: 96, ground: null });
  private count = 0;
  private groups = 0;
  private title: { depth: number; text: string } | null = null;

  constructor(private readonly rules: Rules) {}

  private readonly drop = (what: string, why: string): void => void this.dropped.set(what, why);

  read(text: string): void {
    parse(text, (parser) => {
      parser.on('opentag', (tag) => this.open(tag));
      parser.on('closetag', () => this.close());
      parser.on('text', (t) => this.title && (this.title.text += t));
      parser.on('doctype', () => this.drop('document type', 'Nothing that it names is looked up.'));
    });
  }

  private open(tag: SaxesTagPlain): void {
    const name = plainName(tag.name);
    const attributes = tag.attributes;
    const above = this.stack.at(-1);
    const depth = this.stack.length;
    if (depth === 0 && name !== 'svg') throw new RangeError('this is not an SVG: its outermost element is another');
    if (depth > MOST_DEEP) throw tooDeep();
    const skip = !!above?.skip || notDrawn.has(name) || name in whyDropped;
    if (name in whyDropped && !above?.skip) this.drop(name, whyDropped[name]);
    const look = lookOf(name, attributes, above?.look ?? firstLook, this.rules, skip ? () => undefined : this.drop);
    const own = transformOf(attributes.transform ?? '');
    if (!own) this.drop('transforms that cannot be read', 'What they were for is left where it is without them.');
    const transform = depth === 0 ? this.rootTransform(attributes) : times(above!.transform, own ?? identity);
    let group: OpenGroup | null = null;
    if (name === 'g' && depth === 1 && attributes['data-part'] === 'art') this.top = 2;
    else if (name === 'g' && depth === this.top) {
      this.sheets.push({ name: attributes.id ?? '', items: [], isGroup: true, ...sheetLaying(look) });
      if (look.blend !== 'normal') this.drop('blend modes', 'A sheet is laid plainly over those below.');
    } else if (name === 'g' && depth > this.top && attributes['data-part'] !== 'line')
      group = { name: '', items: [], ...layingOf(look) };
    if (name === 'title') this.title = { depth, text: '' };
    const element: Element = { name, look, transform, group, depth, skip, part: attributes['data-part'] };
    this.stack.push(element);
    if (!skip && !look.hidden) this.draw(element, attributes);
  }

  private close(): void {
    const element = this.stack.pop()!;
    if (element.name === 'title' && this.title) {
      const text = this.title.text.trim().slice(0, 200);
      const { group, line } = this.stack.at(-1) ?? {};
      const sheet = this.sheets.at(-1);
      if (line && text) line.name = text;
      else if (group && text) group.name = text;
      else if (this.title.depth === this.top + 1 && sheet?.isGroup && text) sheet.name = text;
      this.title = null;
    }
    if (element.name === 'g' && element.depth === this.top) {
      const sheet = this.sheets.at(-1);
      if (sheet) sheet.isGroup = false;
    }
    if (element.group) this.closeGroup(element.group, element.depth);
  }

  /** A group goes to where it lies; one in which nothing is left is none. */
  private closeGroup({ items, name, ...laying }: OpenGroup, depth: number): void {
    if (items.length === 0) return;
    const above = this.itemsFor(depth);
    // Where groups can lie no deeper, what is in one lies in the one around it.
    const level = this.stack.filter((e) => e.group).length;
    if (level >= DEEPEST_GROUP) for (const item of items) above.push(item);
    else above.push({ kind: 'group', id: `g${++this.groups}`, name, items, ...laying });
  }

  /** From user units to page units: the viewBox fitted into the size, in its middle (SVG 2, 8.2). */
  private rootTransform(a: Record<string, string>): Matrix {
    const box = (a.viewBox ?? '')
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    const hasBox = box.length === 4 && box.every(Number.isFinite) && box[2] > 0 && box[3] > 0;
    const width = lengthOf(a.width) ?? (hasBox ? box[2] : 300);
    const height = lengthOf(a.height) ?? (hasBox ? box[3] : 150);
    const unit = /(px|mm|cm|in|pt)$/.exec((a.width ?? '').trim().slice(-4))?.[1] as Unit | undefined;
    const side = (v: number): number => Math.min(100_000, Math.max(1, v));
    this.page = plainPage({ width: side(width), height: side(height), unit: unit ?? 'px', dpi: 300, ground: null });
    if (!hasBox) return identity;
    const [kx, ky] = [width / box[2], height / box[3]];
    const k = Math.min(kx, ky);
    const [sx, sy] = a.preserveAspectRatio?.trim().startsWith('none') ? [kx, ky] : [k, k];
    const [tx, ty] = [(width - box[2] * sx) / 2 - box[0] * sx, (height - box[3] * sy) / 2 - box[1] * sy];
    return { a: sx, b: 0, c: 0, d: sy, e: tx, f: ty };
  }

  private draw(element: Element, attributes: Record<string, string>): void {
    const { name, look, transform, depth } = element;
    // The fill of a living stroke, which comes with the stroke itself.
    if (attributes['data-part'] === 'fill') return;
    const living = livingOf(attributes);
    const data = living?.skeleton ?? outlineOf(name, attributes);
    if (data === null) return;
    const runs = runsOf(data, transform);
    if (!runs) return this.drop('paths that cannot be read', 'Their data or transform is not as SVG has it.');
    if (look.stroke === 'none' && look.fill === 'none') return;
    if (runs.length === 0) return;
    if (this.count >= MOST_LINES) return this.drop('lines', `There are more than ${MOST_LINES} lines.`);
    const isStroked = look.stroke !== 'none';
    const growth = growthOf(transform);
    const line: Line & { name?: string } = {
      id: `r${++this.count}`,
      runs: runs.slice(0, 2000).map((r) => ({ ...r, nodes: r.nodes.slice(0, 20_000) })),
      ...(living ? grownStroke(living.stroke, growth) : { style: styleOf(look, isStroked ? growth : 0) }),
      ...layingOf(this.wholeLook(look, living !== null)),
    };
    element.line = line;
    this.itemsFor(depth).push(line);
  }

  /** The look of a line that is written as several elements is that of the element around them. */
  private wholeLook(look: Look, isLiving: boolean): Look {
    const around = this.stack.at(-2);
    return isLiving && around?.part === 'line' ? around.look : look;
  }

  /**
   * Where an element's item goes: into the group that is open; else onto the sheet of the element at the top. Items outside of
   * any have sheets of their own, in their order.
   */
  private itemsFor(depth: number): Item[] {
    const group = this.stack.findLast((e) => e.group && e.depth < depth)?.group;
    if (group) return group.items;
    const last = this.sheets.at(-1);
    if (last && (last.isGroup ? depth > this.top : last.name === '')) return last.items;
    const items: Item[] = [];
    this.sheets.push({ name: '', items, isGroup: false });
    return items;
  }

  result(): { drawing: Drawing; dropped: Dropped[] } {
    const kept = this.sheets.filter((s) => s.items.length > 0);
    const first = freshSheet('s1', 'Sheet 1', tagColours[0]);
    const sheets = kept.map(({ name, items, opacity }, i): Sheet => {
      const { style } = linesIn(items).at(-1)!;
      return {
        ...freshSheet(`s${i + 1}`, (name || `Sheet ${i + 1}`).slice(0, 200), tagColours[i % tagColours.length]),
        style: { ...style, fill: null, width: style.width || 1 },
        items,
        ...(opacity !== undefined && { opacity }),
      };
    });
    const drawing = emptyDrawing(this.page, { id: 's1', name: 'Sheet 1', tag: tagColours[0] });
    return {
      drawing: { ...drawing, sheets: sheets.length > 0 ? sheets : [first] },
      dropped: [...this.dropped].map(([what, why]) => ({ what, why })),
    };
  }
}

/** How an element is laid over what is below, as far as it says so. */
function layingOf({ opacity, blend }: Look): Laying {
  return { ...(opacity < 1 && { opacity }), ...(blend !== 'normal' && { blend }) };
}

const sheetLaying = ({ opacity }: Look): { opacity?: number } => (opacity < 1 ? { opacity } : {});
