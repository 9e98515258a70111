import { parse, type CssNode, type Selector } from 'css-tree';
import type { SvgElement } from './tree';

/** How much of an element's kind a selector names: ids, classes and the like, element names (Selectors 4, 17). */
export type Specificity = readonly [number, number, number];

/** A list with more brackets is not read: those in brackets are gone over again and again. */
const MOST_NESTED = 20;
/** A class name after so many characters is not looked at. */
const MOST_CLASS = 10_000;

type Test = (e: SvgElement, budget: Budget) => boolean;
type Combinator = ' ' | '>' | '+' | '~';
/** From the element itself outwards: what it must be, and how the next is found from it. */
type Part = { readonly tests: readonly Test[]; readonly to: Combinator | null };

export type CompiledSelector = {
  readonly specificity: Specificity;
  /** What an element must at least have: its id, a class, or its name; by none of these, any. */
  readonly key: { readonly by: 'id' | 'class' | 'type' | 'any'; readonly name: string };
  matches(e: SvgElement, budget: Budget): boolean;
};

/** How many elements may yet be looked at: a style sheet can be made to look at each for each. */
export type Budget = { left: number };

/** The selectors of a list. Null for a list in which something is not known: then the rule is none (Selectors 4, 3.9). */
export function selectorsOf(text: string): CompiledSelector[] | null {
  const list = parsedList(text);
  if (list?.type !== 'SelectorList') return null;
  const compiled = list.children.toArray().map((s) => (s.type === 'Selector' ? compiledSelector(s) : null));
  return compiled.every((s) => s !== null) ? compiled : null;
}

function parsedList(text: string): CssNode | null {
  if (text.split('(').length > MOST_NESTED) return null;
  let wrong = false;
  try {
    const list = parse(text, { context: 'selectorList', onParseError: () => (wrong = true) });
    return wrong ? null : list;
  } catch {
    // Some faults are told, others thrown.
    return null;
  }
}

function compiledSelector(selector: Selector): CompiledSelector | null {
  const parts: { tests: Test[]; to: Combinator | null }[] = [{ tests: [], to: null }];
  const total: [number, number, number] = [0, 0, 0];
  let key: CompiledSelector['key'] = { by: 'any', name: '' };
  for (const node of selector.children.toArray()) {
    if (node.type === 'Combinator') {
      if (![' ', '>', '+', '~'].includes(node.name)) return null;
      parts.unshift({ tests: [], to: node.name as Combinator });
      key = { by: 'any', name: '' };
      continue;
    }
    const made = testOf(node);
    if (!made) return null;
    parts[0].tests.push(made.test);
    made.specificity.forEach((n, i) => (total[i] += n));
    if (made.key && rank[made.key.by] > rank[key.by]) key = made.key;
  }
  return { specificity: total, key, matches: (e, budget) => matchesFrom(parts, 0, e, budget) };
}

const rank = { any: 0, type: 1, class: 2, id: 3 };

function matchesFrom(parts: readonly Part[], at: number, e: SvgElement, budget: Budget): boolean {
  if (budget.left-- <= 0) return false;
  if (!parts[at].tests.every((test) => test(e, budget))) return false;
  const { to } = parts[at];
  if (to === null) return true;
  const isNext = (other: SvgElement | null | undefined): boolean =>
    !!other && matchesFrom(parts, at + 1, other, budget);
  if (to === '>') return isNext(e.parent);
  if (to === '+') return isNext(siblingBefore(e));
  const step = to === ' ' ? (x: SvgElement) => x.parent : siblingBefore;
  for (let other = step(e); other && budget.left > 0; other = step(other)) if (isNext(other)) return true;
  return false;
}

const siblingBefore = (e: SvgElement): SvgElement | null => e.parent?.children[e.index - 1] ?? null;

type Made = { test: Test; specificity: Specificity; key?: CompiledSelector['key'] };

function testOf(node: CssNode): Made | null {
  switch (node.type) {
    case 'TypeSelector': {
      // A namespace before the name is of no account: there are only elements of SVG.
      const name = node.name.slice(node.name.indexOf('|') + 1);
      if (name === '*') return { test: () => true, specificity: [0, 0, 0] };
      return { test: (e) => e.name === name, specificity: [0, 0, 1], key: { by: 'type', name } };
    }
    case 'IdSelector':
      return {
        test: (e) => e.attributes.id === node.name,
        specificity: [1, 0, 0],
        key: { by: 'id', name: node.name },
      };
    case 'ClassSelector':
      return {
        test: (e) => classesOf(e).includes(node.name),
        specificity: [0, 1, 0],
        key: { by: 'class', name: node.name },
      };
    case 'AttributeSelector':
      return attributeTest(node);
    case 'PseudoClassSelector':
      return pseudoTest(node);
    default:
      return null;
  }
}

const classes = new WeakMap<SvgElement, string[]>();
export function classesOf(e: SvgElement): string[] {
  let known = classes.get(e);
  if (!known) classes.set(e, (known = (e.attributes.class ?? '').slice(0, MOST_CLASS).split(/\s+/).filter(Boolean)));
  return known;
}

function attributeTest(node: Extract<CssNode, { type: 'AttributeSelector' }>): Made | null {
  const key = node.name.name.slice(node.name.name.indexOf('|') + 1);
  const fold = (text: string): string => (node.flags?.toLowerCase() === 'i' ? text.toLowerCase() : text);
  const wanted = node.value === null ? '' : fold(node.value.type === 'String' ? node.value.value : node.value.name);
  const compare: Record<string, (value: string) => boolean> = {
    '=': (v) => v === wanted,
    '~=': (v) => wanted !== '' && v.split(/\s+/).includes(wanted),
    '|=': (v) => v === wanted || v.startsWith(`${wanted}-`),
    '^=': (v) => wanted !== '' && v.startsWith(wanted),
    '$=': (v) => wanted !== '' && v.endsWith(wanted),
    '*=': (v) => wanted !== '' && v.includes(wanted),
  };
  const is = node.matcher === null ? () => true : compare[node.matcher];
  if (!is) return null;
  const test: Test = (e) => e.attributes[key] !== undefined && is(fold(e.attributes[key]));
  return { test, specificity: [0, 1, 0] };
}

function pseudoTest(node: Extract<CssNode, { type: 'PseudoClassSelector' }>): Made | null {
  const one: Specificity = [0, 1, 0];
  const count = (e: SvgElement): number => e.parent?.children.length ?? 1;
  switch (node.name) {
    case 'root':
      return { test: (e) => e.parent === null, specificity: one };
    case 'first-child':
      return { test: (e) => e.index === 0, specificity: one };
    case 'last-child':
      return { test: (e) => e.index === count(e) - 1, specificity: one };
    case 'only-child':
      return { test: (e) => count(e) === 1, specificity: one };
    case 'nth-child':
      return nthTest(node);
    case 'not':
    case 'is':
    case 'where': {
      const list = node.children?.first;
      if (list?.type !== 'SelectorList') return null;
      const within = list.children.toArray().map((s) => (s.type === 'Selector' ? compiledSelector(s) : null));
      if (within.some((s) => s === null)) return null;
      const selectors = within as CompiledSelector[];
      const isAny: Test = (e, budget) => selectors.some((s) => s.matches(e, budget));
      const specificity: Specificity =
        node.name === 'where' ? [0, 0, 0] : selectors.map((s) => s.specificity).reduce(larger, [0, 0, 0]);
      return { test: node.name === 'not' ? (e, budget) => !isAny(e, budget) : isAny, specificity };
    }
    // What a hand does to a page, no picture shows: such a rule is sound, and never holds.
    case 'hover':
    case 'active':
    case 'focus':
    case 'visited':
      return { test: () => false, specificity: one };
    default:
      return null;
  }
}

export const compareSpecificity = (a: Specificity, b: Specificity): number => a[0] - b[0] || a[1] - b[1] || a[2] - b[2];
const larger = (a: Specificity, b: Specificity): Specificity => (compareSpecificity(a, b) < 0 ? b : a);

/** Every `a`th from the `b`th on. */
function nthTest(node: Extract<CssNode, { type: 'PseudoClassSelector' }>): Made | null {
  const nth = node.children?.first;
  if (nth?.type !== 'Nth' || nth.selector) return null;
  const [a, b] =
    nth.nth.type === 'AnPlusB'
      ? [Number(nth.nth.a ?? 0), Number(nth.nth.b ?? 0)]
      : nth.nth.name === 'odd'
        ? [2, 1]
        : [2, 0];
  if (!Number.isFinite(a) || !Number.isFinite(b)) return null;
  const test: Test = (e) => (a === 0 ? e.index + 1 === b : (e.index + 1 - b) % a === 0 && (e.index + 1 - b) / a >= 0);
  return { test, specificity: [0, 1, 0] };
}
