import type { Mark } from '@/core/drawing/schema';
import { widthProfile } from '@/core/ink/widths';

const PLACES = 32;

/** The outline of a stroke that is unrolled: `width` long, its middle at `middle`, `scale` px for each of its units. */
export function unrolledOutline(
  marks: readonly Mark[],
  closed: boolean,
  { width, middle, scale, places = PLACES }: { width: number; middle: number; scale: number; places?: number },
): string {
  const profile = widthProfile(marks, closed);
  const at = Array.from({ length: places + 1 }, (_, i) => i / places);
  const shares = [...new Set([...at, ...marks.map((m) => m.at)])].sort((a, b) => a - b);
  const upper = shares.map((s) => `${(s * width).toFixed(1)} ${(middle - profile.at(s).left * scale).toFixed(2)}`);
  const lower = shares.map((s) => `${(s * width).toFixed(1)} ${(middle + profile.at(s).right * scale).toFixed(2)}`);
  return `M${[...upper, ...lower.reverse()].join('L')}Z`;
}

/** A profile’s shape, small. */
export function ProfileShape({ marks }: { marks: readonly Mark[] }) {
  const most = Math.max(...marks.map((m) => Math.max(m.left, m.right)), 1e-6);
  return (
    <svg viewBox="0 0 46 14" width="46" height="14" aria-hidden="true">
      <path d={unrolledOutline(marks, false, { width: 46, middle: 7, scale: 6 / most })} fill="currentColor" />
    </svg>
  );
}
