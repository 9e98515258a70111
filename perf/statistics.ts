export type Summary = { median: number; p95: number; n: number };

const round = (v: number): number => Math.round(v * 1000) / 1000;

/** The median and the 95th percentile, in the values' own unit. */
export function summary(values: readonly number[]): Summary {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (share: number) => round(sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]);
  return { median: at(0.5), p95: at(0.95), n: sorted.length };
}
