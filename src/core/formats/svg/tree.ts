import { SaxesParser, type SaxesTagPlain } from 'saxes';

/** An element of an SVG, by its local name. What is of other vocabularies is not in the tree: it draws nothing. */
export type SvgElement = {
  readonly name: string;
  /** By local name; `href` stands for `xlink:href` too. No prototype: nothing comes from outside the text. */
  readonly attributes: Readonly<Record<string, string>>;
  readonly parent: SvgElement | null;
  /** Which of its parent's children it is. */
  readonly index: number;
  readonly children: SvgElement[];
  /** The text within, of those elements whose text counts. */
  text: string;
};

export type SvgTree = {
  readonly root: SvgElement;
  /** The first element of each id. */
  readonly byId: ReadonlyMap<string, SvgElement>;
  readonly count: number;
  readonly hasDoctype: boolean;
  /** How many elements lie beyond the bound, and were not read. */
  readonly beyond: number;
};

const SVG = 'http://www.w3.org/2000/svg';
const MOST_DEEP = 200;
const MOST_ELEMENTS = 500_000;
const MOST_ENTITIES = 100;
/** An entity stands for no more than this, characters, and all of them together for no more than that. */
const MOST_ENTITY = 1_000;
const MOST_EXPANDED = 2_000_000;

const TEXTUAL: ReadonlySet<string> = new Set(['style', 'title']);

/**
 * An SVG's text as a tree of elements. Names are told by their namespace (XML Namespaces 1.0), whatever the prefix; a text
 * that names none is taken for SVG. Entities of the text itself that stand for plain text are put in, within bounds; none is
 * looked up. @throws RangeError for a text that is no sound XML, whose root is no `svg`, or that is nested too deeply.
 */
export function svgTree(text: string): SvgTree {
  const builder = new Builder();
  const parser = new SaxesParser();
  parser.on('error', (e) => {
    throw new RangeError(`this is not a sound SVG: ${e.message.slice(0, 200)}`);
  });
  parser.on('doctype', (t) => {
    builder.hasDoctype = true;
    for (const [name, value] of plainEntities(t, text)) parser.ENTITIES[name] = value;
  });
  parser.on('opentag', builder.open);
  parser.on('closetag', builder.close);
  parser.on('text', builder.text);
  parser.on('cdata', builder.text);
  parser.write(text.startsWith('\uFEFF') ? text.slice(1) : text).close();
  return builder.tree();
}

/** The entities of a document type that stand for plain text, as far as they may be put in. */
function plainEntities(doctype: string, text: string): [string, string][] {
  const found: [string, string][] = [];
  let expanded = 0;
  // Each piece is one declaration at most: nothing is gone over twice.
  for (const piece of doctype.split('<!ENTITY').slice(1, MOST_ENTITIES + 1)) {
    const declared = /^\s{1,20}([\w.-]{1,60})\s{1,20}(?:"([^"]{0,1000})"|'([^']{0,1000})')/.exec(piece.slice(0, 1_200));
    const value = declared && (declared[2] ?? declared[3]);
    if (!declared || value === null || value.length > MOST_ENTITY || /[&<%]/.test(value)) continue;
    expanded += (text.split(`&${declared[1]};`).length - 1) * value.length;
    if (expanded > MOST_EXPANDED) break;
    found.push([declared[1], value]);
  }
  return found;
}

type Scope = { readonly prefixes: Readonly<Record<string, string>>; readonly above: Scope | null };
type Open = { readonly element: SvgElement | null; readonly scope: Scope };

class Builder {
  hasDoctype = false;
  private root: SvgElement | null = null;
  private readonly byId = new Map<string, SvgElement>();
  private readonly stack: Open[] = [];
  private count = 0;
  private beyond = 0;

  readonly open = (tag: SaxesTagPlain): void => {
    if (this.stack.length > MOST_DEEP) throw new RangeError('the SVG is nested too deeply to be read');
    const above = this.stack.at(-1);
    const scope = scopeWithin(above?.scope ?? null, tag.attributes);
    const name = localName(tag.name, scope);
    if (!above && name !== 'svg') throw new RangeError('this is not an SVG: its outermost element is another');
    const isIn = name !== null && (!above || above.element !== null);
    if (isIn && this.count >= MOST_ELEMENTS) this.beyond++;
    const element = isIn && this.count < MOST_ELEMENTS ? this.made(name, tag.attributes, above?.element ?? null) : null;
    this.stack.push({ element, scope });
  };

  private made(name: string, given: Record<string, string>, parent: SvgElement | null): SvgElement {
    this.count++;
    const attributes = plainAttributes(given);
    const element = { name, attributes, parent, index: parent?.children.length ?? 0, children: [], text: '' };
    parent?.children.push(element);
    this.root ??= element;
    const { id } = attributes;
    if (id && !this.byId.has(id)) this.byId.set(id, element);
    return element;
  }

  readonly close = (): void => void this.stack.pop();

  readonly text = (t: string): void => {
    const element = this.stack.at(-1)?.element;
    if (element && TEXTUAL.has(element.name)) element.text += t;
  };

  tree(): SvgTree {
    return { root: this.root!, byId: this.byId, count: this.count, hasDoctype: this.hasDoctype, beyond: this.beyond };
  }
}

function scopeWithin(above: Scope | null, attributes: Record<string, string>): Scope {
  let own: Record<string, string> | null = null;
  for (const key in attributes) {
    if (key !== 'xmlns' && !key.startsWith('xmlns:')) continue;
    own ??= Object.create(null) as Record<string, string>;
    own[key.slice(6)] = attributes[key].trim();
  }
  if (!own) return above ?? { prefixes: Object.create(null) as Record<string, string>, above: null };
  return { prefixes: own, above };
}

/** An SVG element's local name; null for one of another vocabulary. */
function localName(name: string, scope: Scope): string | null {
  const colon = name.indexOf(':');
  const prefix = colon < 0 ? '' : name.slice(0, colon);
  let namespace: string | undefined;
  for (let s: Scope | null = scope; s && namespace === undefined; s = s.above) namespace = s.prefixes[prefix];
  // Undeclared, as files written by hand have it.
  if (namespace === undefined && (prefix === '' || prefix === 'svg')) namespace = SVG;
  return namespace === SVG ? name.slice(colon + 1) : null;
}

function plainAttributes(given: Record<string, string>): Record<string, string> {
  const own = Object.create(null) as Record<string, string>;
  for (const key in given) {
    const colon = key.indexOf(':');
    if (colon < 0) own[key] = given[key];
    else if (key.slice(colon) === ':href' && own.href === undefined) own.href = given[key];
  }
  return own;
}
