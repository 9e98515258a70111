/** Custom properties as they are handed down, by their names without the dashes; null for none (CSS Variables 1). */
export type Variables = Readonly<Record<string, string>> | null;

type Declared = Readonly<Record<string, string>>;

const MOST_NESTED = 8;
const MOST_VALUE = 2_000;

/** What is declared of an element with the variables in it put in; and those that it hands down. */
export function withVariables(declared: Declared, above: Variables): { own: Declared; variables: Variables } {
  let variables = above;
  let uses = false;
  for (const key in declared) {
    if (key.startsWith('--')) {
      if (variables === above) variables = Object.assign(Object.create(null) as Record<string, string>, above);
      (variables as Record<string, string>)[key.slice(2)] = declared[key];
    } else if (declared[key].includes('var(')) uses = true;
  }
  if (!uses) return { own: declared, variables };
  const own = Object.create(null) as Record<string, string>;
  for (const key in declared) {
    const value = putIn(declared[key], variables, 0);
    if (value !== null) own[key] = value;
  }
  return { own, variables };
}

/** A value with what its variables stand for; null where one stands for nothing, or for too much. */
function putIn(text: string, variables: Variables, depth: number): string | null {
  const at = text.indexOf('var(');
  if (at < 0) return text;
  if (depth > MOST_NESTED || text.length > MOST_VALUE) return null;
  const end = closingOf(text, at + 3);
  if (end < 0) return null;
  const inner = text.slice(at + 4, end);
  const comma = inner.indexOf(',');
  const name = (comma < 0 ? inner : inner.slice(0, comma)).trim();
  const value = name.startsWith('--') ? variables?.[name.slice(2)] : undefined;
  const stands = value ?? (comma < 0 ? null : inner.slice(comma + 1).trim());
  return stands === null ? null : putIn(text.slice(0, at) + stands + text.slice(end + 1), variables, depth + 1);
}

/** Where the bracket that opens at a place is closed. */
function closingOf(text: string, open: number): number {
  let depth = 0;
  for (let i = open; i < text.length; i++) {
    if (text[i] === '(') depth++;
    else if (text[i] === ')' && --depth === 0) return i;
  }
  return -1;
}
