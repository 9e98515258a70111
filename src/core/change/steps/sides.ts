import { dequal } from 'dequal';
import { ChangeError } from '../changeError';

/** What steps that set something have in common: what it was before, and what it is after. */
export type Sides = { readonly before: object; readonly after: object };

export const isSame = (a: unknown, b: unknown): boolean => a === b || dequal(a, b);

/**
 * A thing with some of it set. What `plain` says of it is left out: then a drawing is the same as before there was such a
 * thing to be said. @throws ChangeError when it is not as `before` says.
 */
export function withSides<T extends object>(
  value: T,
  { before, after }: Sides,
  what: string,
  plain: Readonly<Record<string, unknown>> = {},
): T {
  const isNone = (key: string, v: unknown): boolean => v === undefined || (key in plain && isSame(v, plain[key]));
  for (const [key, was] of Object.entries(before)) {
    const is = (value as Record<string, unknown>)[key];
    if (!isSame(is, was) && !(is === undefined && isNone(key, was)))
      throw new ChangeError(`the ${what}'s ${key} is not as it was`);
  }
  for (const key of Object.keys(after))
    if (!(key in before)) throw new ChangeError(`the ${what}'s ${key} is set without saying what it was`);
  const next = { ...value, ...after } as Record<string, unknown>;
  for (const key of Object.keys(after)) if (isNone(key, next[key])) delete next[key];
  return inOrder(next, Object.keys(plain)) as T;
}

/** What may be left out is said last, and always in the same order: what is taken back is as it was, to the byte. */
function inOrder(value: Record<string, unknown>, last: readonly string[]): Record<string, unknown> {
  const said = last.filter((key) => key in value);
  if (said.length === 0) return value;
  const rest = Object.entries(value).filter(([key]) => !said.includes(key));
  return Object.fromEntries([...rest, ...said.map((key) => [key, value[key]])]);
}

/** The step with its two sides swapped: it takes back what it did. */
export const turnedAbout = <S extends Sides>(step: S): S => ({ ...step, before: step.after, after: step.before });

export function inserted<T>(list: readonly T[], index: number, item: T, what: string): T[] {
  if (index > list.length) throw new ChangeError(`no place ${index} for a ${what}`);
  return list.toSpliced(index, 0, item);
}

export function removed<T>(list: readonly T[], index: number, item: unknown, what: string): T[] {
  if (index >= list.length || !isSame(list[index], item))
    throw new ChangeError(`the ${what} to be removed is not as it was`);
  return list.toSpliced(index, 1);
}

export function moved<T>(list: readonly T[], from: number, to: number, what: string): T[] {
  if (from >= list.length || to >= list.length) throw new ChangeError(`no ${what} at that place`);
  return list.toSpliced(from, 1).toSpliced(to, 0, list[from]);
}
