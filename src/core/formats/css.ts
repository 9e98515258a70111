import { parse, type CssNode } from 'css-tree';

/** A style sheet's rules for classes, ids and element names; anything finer is left out. */
export type Rules = ReadonlyMap<string, Record<string, string>>;

/** A style sheet longer than this is read to here, characters. */
const MOST_CSS = 200_000;

/** What of a style says how a line looks; the rest is not kept, so that no element has to carry it. */
const PROPERTIES: ReadonlySet<string> = new Set([
  'color',
  'stroke',
  'fill',
  'opacity',
  'fill-opacity',
  'fill-rule',
  'stroke-opacity',
  'filter',
  'clip-path',
  'mask',
  'stroke-width',
  'stroke-linecap',
  'stroke-linejoin',
  'stroke-miterlimit',
  'stroke-dasharray',
  'stroke-dashoffset',
  'paint-order',
  'mix-blend-mode',
  'display',
  'visibility',
]);

/** Names, classes and ids by themselves. */
const PLAIN_SELECTOR = /^[.#]?[\w-]+$/;
const raw = { parseValue: false, parseRulePrelude: false, parseAtrulePrelude: false, parseCustomProperty: false };

/** The rules of a style sheet that speak of what is plainly named; those within at-rules are left out. */
export function rulesOf(css: string): Map<string, Record<string, string>> {
  const rules = new Map<string, Record<string, string>>();
  for (const node of childrenOf(parse(css.slice(0, MOST_CSS), raw))) {
    if (node.type !== 'Rule' || node.prelude.type !== 'Raw') continue;
    const body = declarationsIn(node.block);
    for (const selector of node.prelude.value.split(',')) {
      const name = selector.trim();
      if (PLAIN_SELECTOR.test(name)) rules.set(name, { ...rules.get(name), ...body });
    }
  }
  return rules;
}

/** What an element's own `style` says. */
export const declarationsOf = (text: string): Record<string, string> =>
  text ? declarationsIn(parse(text.slice(0, MOST_CSS), { context: 'declarationList', ...raw })) : {};

function declarationsIn(list: CssNode): Record<string, string> {
  const found: Record<string, string> = {};
  for (const node of childrenOf(list)) {
    if (node.type !== 'Declaration' || node.value.type !== 'Raw') continue;
    const name = node.property.toLowerCase();
    if (PROPERTIES.has(name)) found[name] = node.value.value.trim();
  }
  return found;
}

const childrenOf = (node: CssNode): CssNode[] =>
  'children' in node && node.children ? [...(node.children as Iterable<CssNode>)] : [];
