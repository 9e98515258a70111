import { parse, type CssNode } from 'css-tree';
import { classesOf, compareSpecificity, selectorsOf, type Budget, type CompiledSelector } from './selectors';
import type { SvgElement } from './tree';

/** Style sheets together are read up to here, characters; a value no further than that. */
const MOST_CSS = 400_000;
const MOST_VALUE = 20_000;
/** So many elements are looked at for the rules of one SVG. */
const MOST_LOOKS = 200_000;
const LOOKS_EACH = 4;
/** So many selectors are read. */
const MOST_RULES = 3_000;

/** What of a style says how something looks; the rest is not kept, so that no element has to carry it. */
const PROPERTIES: ReadonlySet<string> = new Set(
  `clip-path clip-rule color cx cy d display fill fill-opacity fill-rule filter font-size height href isolation marker marker-end
  marker-mid marker-start mask mask-type mix-blend-mode opacity overflow paint-order r rx ry stop-color stop-opacity stroke
  stroke-dasharray stroke-dashoffset stroke-linecap stroke-linejoin stroke-miterlimit stroke-opacity stroke-width transform
  transform-origin transform-box vector-effect visibility width x y`.split(/\s+/),
);

type Declaration = { readonly property: string; readonly value: string; readonly important: boolean };
type Rule = {
  readonly selector: CompiledSelector;
  readonly declarations: readonly Declaration[];
  readonly order: number;
};
export type Drop = (what: string, why: string) => void;

const raw = { parseValue: false, parseRulePrelude: false, parseAtrulePrelude: false, parseCustomProperty: false };

/** The rules of an SVG's style sheets, and what they and an element's own attributes come to (CSS Cascade 4). */
export class StyleSheet {
  private readonly buckets = { id: new Map(), class: new Map(), type: new Map() } as Record<
    'id' | 'class' | 'type',
    Map<string, Rule[]>
  >;
  private readonly any: Rule[] = [];
  private readonly budget: Budget;
  private count = 0;

  constructor(
    texts: readonly string[],
    elements: number,
    private readonly drop: Drop,
  ) {
    this.budget = { left: MOST_LOOKS + LOOKS_EACH * elements };
    const css = texts.join('\n');
    if (css.length > MOST_CSS) drop('style rules', 'There is more text in the style sheets than is read.');
    if (css.trim() !== '') this.add(parse(css.slice(0, MOST_CSS), raw));
  }

  private add(list: CssNode): void {
    for (const node of childrenOf(list)) {
      if (node.type === 'Rule' && node.prelude.type === 'Raw') this.addRule(node.prelude.value, node.block);
      else if (node.type === 'Atrule') this.addAtRule(node);
    }
  }

  private addAtRule(node: Extract<CssNode, { type: 'Atrule' }>): void {
    const query = node.prelude?.type === 'Raw' ? node.prelude.value.trim().toLowerCase() : '';
    if (node.name === 'media' && node.block && /^(all|screen|)$/.test(query)) this.add(node.block);
    else if (node.name === 'import') this.drop('imported style sheets', 'Nothing outside of the file is looked up.');
    else if (node.name === 'media' || node.name === 'supports' || node.name === 'layer')
      this.drop('style rules', 'Those that hold under conditions only are left out.');
  }

  private addRule(prelude: string, block: CssNode): void {
    const declarations = declarationsIn(block);
    if (declarations.length === 0) return;
    if (this.count >= MOST_RULES) return this.drop('style rules', `Those beyond the first ${MOST_RULES} are left out.`);
    const selectors = prelude.length <= 10_000 ? selectorsOf(prelude) : null;
    if (!selectors) return this.drop('style rules', 'What some of them are for cannot be read.');
    for (const selector of selectors) {
      const rule: Rule = { selector, declarations, order: this.count++ };
      const { by, name } = selector.key;
      if (by === 'any') this.any.push(rule);
      else if (this.buckets[by].has(name)) this.buckets[by].get(name)!.push(rule);
      else this.buckets[by].set(name, [rule]);
    }
  }

  private rulesFor(e: SvgElement): Rule[] {
    if (this.count === 0 || this.budget.left <= 0) return [];
    const { id, class: byClass, type } = this.buckets;
    const candidates = [
      ...this.any,
      ...(type.get(e.name) ?? []),
      ...classesOf(e).flatMap((c) => byClass.get(c) ?? []),
      ...((e.attributes.id && id.get(e.attributes.id)) || []),
    ];
    const found = candidates.filter((r) => r.selector.matches(e, this.budget));
    if (this.budget.left <= 0) this.drop('style rules', 'There are more than can be told apart for so many elements.');
    return found.sort(
      (a, b) => compareSpecificity(a.selector.specificity, b.selector.specificity) || a.order - b.order,
    );
  }

  /** Whether an element says all by its attributes. */
  isPlain = (e: SvgElement): boolean => this.count === 0 && e.attributes.style === undefined;

  /** All that an element says and is told of itself: attributes, then rules, then its own style; what is important last. */
  declaredOf(e: SvgElement): Readonly<Record<string, string>> {
    if (this.isPlain(e)) return e.attributes;
    const rules = this.rulesFor(e);
    const inline = e.attributes.style ? declarationsOf(e.attributes.style) : [];
    if (rules.length === 0 && inline.length === 0) return e.attributes;
    const own = Object.assign(Object.create(null), e.attributes) as Record<string, string>;
    const all = [...rules.flatMap((r) => r.declarations), ...inline];
    for (const d of all) if (!d.important) own[d.property] = d.value;
    for (const d of all) if (d.important) own[d.property] = d.value;
    return own;
  }
}

const inlineStyles = new Map<string, Declaration[]>();
const MOST_KEPT = 500;

/** What an element's own `style` says; the same ones come again and again. */
function declarationsOf(text: string): Declaration[] {
  const known = inlineStyles.get(text);
  if (known) return known;
  const read = declarationsIn(parse(text.slice(0, MOST_CSS), { context: 'declarationList', ...raw }));
  if (text.length < 1_000) {
    if (inlineStyles.size >= MOST_KEPT) inlineStyles.clear();
    inlineStyles.set(text, read);
  }
  return read;
}

function declarationsIn(list: CssNode): Declaration[] {
  return childrenOf(list).flatMap((node): Declaration[] => {
    if (node.type !== 'Declaration' || node.value.type !== 'Raw') return [];
    const isOwn = node.property.startsWith('--');
    const property = isOwn ? node.property : node.property.toLowerCase();
    const value = node.value.value.trim();
    if ((!isOwn && !PROPERTIES.has(property)) || value.length > MOST_VALUE) return [];
    return [{ property, value, important: !!node.important }];
  });
}

const childrenOf = (node: CssNode): CssNode[] =>
  'children' in node && node.children ? [...(node.children as Iterable<CssNode>)] : [];
