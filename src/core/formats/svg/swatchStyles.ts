import { alphaOf, opaque } from '../../colour/colour';
import { isSwatch, type Paint } from '../../drawing/paint';
import type { Drawing } from '../../drawing/schema';
import { decimal } from '../pathData';

type What = 'fill' | 'stroke' | 'stop-color';
const alphaName: Record<What, string> = {
  fill: 'fill-opacity',
  stroke: 'stroke-opacity',
  'stop-color': 'stop-opacity',
};

/**
 * How paints are written: as their colour, or, where they are swatches, as classes or custom properties of one style sheet
 * (CSS 2.1; CSS Custom Properties 1). With properties the colour stands in the attribute too, for readers that know of none.
 */
export class SwatchStyles {
  private readonly names = new Map<string, string>();
  private readonly rules = new Map<string, string>();

  constructor(
    drawing: Pick<Drawing, 'palette'>,
    private readonly how: 'values' | 'classes' | 'properties',
  ) {
    if (how === 'values') return;
    const taken = new Set<string>();
    for (const { id, name, colour } of drawing.palette ?? []) {
      const base = cssName(name) || `colour-${opaque(colour).slice(1)}`;
      let own = base;
      for (let k = 2; taken.has(own); k++) own = `${base}-${k}`;
      taken.add(own);
      this.names.set(id, own);
    }
  }

  /** The attributes that paint something with a colour, which `paint` came to. */
  attribute(what: What, colour: string, paint: Paint | null): string {
    const name = isSwatch(paint) ? this.names.get(paint.swatch) : undefined;
    const alpha = alphaOf(colour);
    const plain = `${what}="${opaque(colour)}"`;
    const through = alpha < 1 ? ` ${alphaName[what]}="${decimal(alpha, 4)}"` : '';
    if (!name) return ` ${plain}${through}`;
    if (this.how === 'classes') {
      const rule = `${what === 'stop-color' ? 'stop' : what}-${name}`;
      this.rules.set(`.${rule}`, `{${what}:${opaque(colour)}}`);
      return ` class="${rule}"${through}`;
    }
    this.rules.set(`--${name}`, `:${opaque(colour)};`);
    return ` ${plain} style="${what}:var(--${name})"${through}`;
  }

  /** Elements in which what is told of classes and styles stands in one attribute each. */
  merged(elements: string): string {
    if (this.how === 'values') return elements;
    return elements.replace(/<path [^>]*>/g, (tag) => inOne(inOne(tag, 'class', ' '), 'style', ';'));
  }

  /** The style sheet of all that was asked for; '' where none is needed. */
  sheet(): string {
    if (this.rules.size === 0) return '';
    const rules = [...this.rules].map(([name, rule]) => `${name}${rule}`).join('');
    return this.how === 'classes' ? rules : `svg{${rules}}`;
  }
}

/** A tag whose attributes of one name are one. */
function inOne(tag: string, name: 'class' | 'style', between: string): string {
  const found = [...tag.matchAll(new RegExp(` ${name}="([^"]*)"`, 'g'))];
  if (found.length < 2) return tag;
  const whole = ` ${name}="${found.map((f) => f[1]).join(between)}"`;
  let isFirst = true;
  return tag.replace(new RegExp(` ${name}="[^"]*"`, 'g'), () => {
    const at = isFirst ? whole : '';
    isFirst = false;
    return at;
  });
}

/** A name as an identifier of CSS that needs no escapes. */
const cssName = (name: string): string => {
  const plain = name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60);
  return /^[a-z]/.test(plain) ? plain : plain && `c-${plain}`;
};
