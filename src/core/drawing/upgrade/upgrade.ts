/** A drawing, or a step of a change, as some program wrote it: not yet known to be sound. */
export type Raw = Record<string, unknown>;

/** How what was written under one number becomes what it is under the next. Both are given as JSON has them. */
export type Upgrade = {
  readonly from: number;
  drawing(d: Raw): Raw;
  /** Lines, or items, by themselves, as they are copied. */
  items(list: readonly unknown[]): unknown[];
  /** The steps of one change, in their order. */
  steps(s: readonly Raw[]): Raw[];
};

export const isRaw = (v: unknown): v is Raw => typeof v === 'object' && v !== null && !Array.isArray(v);

/** Each item of a list made something of; what is no list stays, for it to be told of. */
export const eachOf = (v: unknown, make: (item: unknown) => unknown): unknown => (Array.isArray(v) ? v.map(make) : v);
