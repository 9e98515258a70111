import type { Blend, Gradient, Paint, Swatch } from '../../drawing/paint';
import type { Group, Item, Line } from '../../drawing/schema';
import type { Matrix } from '../../geometry/matrix';
import type { Measures } from './lengths';
import { firstLook, lookOf, type Look } from './look';
import { StyleSheet, type Drop } from './styleSheet';
import type { SvgElement, SvgTree } from './tree';
import type { PictureBytes } from './pictures';

/** Where something is drawn. */
export type Context = {
  /** From user units to the page. */
  readonly map: Matrix;
  /** What is handed down. */
  readonly look: Look;
  readonly measures: Measures;
  /** What is drawn by being spoken of, the outermost first: none may draw itself again. */
  readonly within: readonly SvgElement[];
};

/** How something is laid over what lies below it. */
type Laid = { readonly opacity?: number; readonly blend?: Blend };

/** The same as items have it: what is plain is not said. */
export const laying = ({ opacity = 1, blend = 'normal' }: Laid): Laid => ({
  ...(opacity < 1 && { opacity }),
  ...(blend !== 'normal' && { blend }),
});

/** So many elements are drawn beyond those that there are, for the sake of repeated ones; and so many items come of it. */
const MOST_REPEATED = 60_000;
export const MOST_ITEMS = 100_000;
/** Elements that draw each other lie no deeper in each other. */
export const MOST_WITHIN = 24;
const MOST_GRADIENTS = 10_000;
const MOST_SWATCHES = 2_000;

/** What an SVG is made into while it is read: what all of its parts share. */
export class Making {
  readonly dropped = new Map<string, string>();
  readonly gradients: Gradient[] = [];
  readonly palette: Swatch[] = [];
  readonly pictures = new Map<string, PictureBytes>();
  private readonly styles: StyleSheet;
  private readonly declared = new Map<SvgElement, Readonly<Record<string, string>>>();
  private readonly gradientIds = new Map<string, string>();
  private readonly stopIds = new WeakMap<object, string>();
  private readonly swatchIds = new Map<string, string>();
  private drawn = 0;
  private readonly mostDrawn: number;
  private made = 0;
  private ids = 0;

  constructor(readonly tree: SvgTree) {
    this.mostDrawn = tree.count + MOST_REPEATED;
    this.styles = new StyleSheet(styleTexts(tree.root), tree.count, this.drop);
    if (tree.hasDoctype) this.drop('document type', 'Nothing outside of the file that it names is looked up.');
    if (tree.beyond > 0) this.drop('elements', `There are more than can be read: ${tree.beyond} are left out.`);
  }

  readonly drop: Drop = (what, why) => void (this.dropped.has(what) || this.dropped.set(what, why));

  id = (letter: string): string => `${letter}${++this.ids}`;

  /** Whether one more element may be drawn. */
  mayDraw(): boolean {
    if (this.drawn++ < this.mostDrawn && this.made < MOST_ITEMS) return true;
    this.drop('elements', 'There is more to draw than a drawing holds; what comes last is left out.');
    return false;
  }

  /** The same, and one more item is made. */
  mayMake(): boolean {
    if (this.made++ < MOST_ITEMS) return true;
    this.drop('lines', `There are more than ${MOST_ITEMS} lines.`);
    return false;
  }

  group(items: readonly Item[], how: Laid & { readonly name?: string; readonly clip?: Line }): Group {
    const { name = '', clip } = how;
    return { kind: 'group', id: this.id('g'), name, items, ...(clip && { clip }), ...laying(how) };
  }

  readonly declaredOf = (e: SvgElement): Readonly<Record<string, string>> => {
    if (this.styles.isPlain(e)) return e.attributes;
    let known = this.declared.get(e);
    if (!known) this.declared.set(e, (known = this.styles.declaredOf(e)));
    return known;
  };

  lookOf(e: SvgElement, above: Look, measures: Measures): Look {
    return lookOf(this.declaredOf(e), above, measures, this.drop);
  }

  /** The look of an element where it stands, for what is drawn by being spoken of. */
  lookInPlace(e: SvgElement, measures: Measures): Look {
    const around = e.parent ? this.lookInPlace(e.parent, measures) : firstLook;
    return this.lookOf(e, around, measures);
  }

  /** A gradient as a paint; one that is there already is used again. Null where there are too many. */
  gradientPaint(gradient: Omit<Gradient, 'id' | 'name'>): Paint | null {
    const { stops, ...places } = gradient;
    let ofStops = this.stopIds.get(stops);
    if (ofStops === undefined) this.stopIds.set(stops, (ofStops = this.id('stops')));
    const key = JSON.stringify(places) + ofStops;
    let id = this.gradientIds.get(key);
    if (!id) {
      if (this.gradients.length >= MOST_GRADIENTS) {
        this.drop('gradients and patterns', `There are more than ${MOST_GRADIENTS} gradients; one colour stands in.`);
        return null;
      }
      id = this.id('gradient');
      this.gradientIds.set(key, id);
      this.gradients.push({ id, name: '', ...gradient });
    }
    return { gradient: id };
  }

  /** A colour that the file has a name for, as a colour of the palette. */
  swatchPaint(name: string, colour: string): Paint {
    const known = this.swatchIds.get(name);
    if (known && this.palette.find((s) => s.id === known)?.colour === colour) return { swatch: known };
    if (known || this.palette.length >= MOST_SWATCHES || colour.length !== 7) return colour;
    const id = this.id('swatch');
    this.swatchIds.set(name, id);
    this.palette.push({ id, name: name.replaceAll('-', ' ').slice(0, 200), colour });
    return { swatch: id };
  }
}

/** The style sheets of a tree, in their order. */
function styleTexts(root: SvgElement): string[] {
  const texts: string[] = [];
  const look = (e: SvgElement): void => {
    const { type = 'text/css', media = 'all' } = e.attributes;
    if (e.name === 'style' && /^(text\/css)?$/i.test(type.trim()) && /^(all|screen)?$/i.test(media.trim()))
      texts.push(e.text);
    e.children.forEach(look);
  };
  look(root);
  return texts;
}
