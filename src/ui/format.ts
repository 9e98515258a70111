import type { Unit } from '@/core';
import { toUnit } from '@/core/drawing/unit';

const number = (digits: number) => new Intl.NumberFormat('en', { maximumFractionDigits: digits });
const formats = new Map<number, Intl.NumberFormat>();

/** A number with at most `digits` decimals: "1,748". */
export function formatNumber(value: number, digits = 2): string {
  let f = formats.get(digits);
  if (!f) formats.set(digits, (f = number(digits)));
  const text = f.format(value);
  return /^-0(\.0+)?$/.test(text) ? text.slice(1) : text.replace('-', '−');
}

const digitsFor: Record<Unit, number> = { px: 1, mm: 2, cm: 3, in: 3, pt: 2 };

/** A length given in page units, written in a unit: "61.42 mm". */
export const formatLength = (px: number, unit: Unit, digits = digitsFor[unit]): string =>
  `${formatNumber(toUnit(px, unit), digits)} ${unit}`;

/** A share as a percentage: "40 %". */
export const formatShare = (share: number, digits = 0): string => `${formatNumber(share * 100, digits)} %`;

/** "1 line", "3 lines". */
export const formatCount = (count: number, noun: string): string =>
  `${formatNumber(count)} ${noun}${count === 1 ? '' : 's'}`;

/** "1.4 MB". */
export const formatBytes = (bytes: number): string =>
  bytes < 1_000
    ? `${bytes} bytes`
    : bytes < 1_000_000
      ? `${formatNumber(bytes / 1_000, 1)} kB`
      : bytes < 1_000_000_000
        ? `${formatNumber(bytes / 1_000_000, 1)} MB`
        : `${formatNumber(bytes / 1_000_000_000, 1)} GB`;

const day = new Intl.DateTimeFormat('en', { day: 'numeric', month: 'short', year: 'numeric' });
const moment = new Intl.DateTimeFormat('en', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
  hour12: false,
});
/** A day and a time of it, by the clock here. */
export const formatTime = (ms: number): string => moment.format(ms);
const relative = new Intl.RelativeTimeFormat('en', { numeric: 'auto' });

/** How long ago: "just now", "5 minutes ago", "yesterday"; the day, when it is over a week. */
export function formatSince(ms: number, now: number): string {
  const minutes = (now - ms) / 60_000;
  if (minutes < 1) return 'just now';
  if (minutes < 60) return relative.format(-Math.floor(minutes), 'minute');
  if (minutes < 60 * 24) return relative.format(-Math.floor(minutes / 60), 'hour');
  if (minutes < 60 * 24 * 7) return relative.format(-Math.floor(minutes / 60 / 24), 'day');
  return day.format(ms);
}
