import { formatNumber } from '@/ui/format';

/** Minutes as they are said. */
export const minutes = (seconds: number): string =>
  seconds < 60 ? `${formatNumber(seconds)} s` : `${formatNumber(seconds / 60, seconds < 600 ? 1 : 0)} min`;
