import { identity, type Matrix } from '../../geometry/matrix';

export type Size = { readonly width: number; readonly height: number };
export type ViewBox = Size & { readonly x: number; readonly y: number };

/** A `viewBox`; null for one that cannot be read, or has no area. */
export function viewBoxOf(text: string | undefined): ViewBox | null {
  if (!text || text.length > 400) return null;
  const v = text
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (v.length !== 4 || !v.every(Number.isFinite) || !(v[2] > 0 && v[3] > 0)) return null;
  return { x: v[0], y: v[1], width: v[2], height: v[3] };
}

const PLACES: Record<string, number> = { Min: 0, Mid: 0.5, Max: 1 };

/** How a `preserveAspectRatio` fits one box into another: which part of the spare room lies before it, and whether it fills. */
export function fittingOf(text: string | undefined): { x: number; y: number; slice: boolean } | 'stretch' {
  const words = (text ?? '').slice(0, 100).trim().split(/\s+/);
  const [align, how] = words[0] === 'defer' ? words.slice(1) : words;
  if (align === 'none') return 'stretch';
  const found = /^x(Min|Mid|Max)Y(Min|Mid|Max)$/.exec(align ?? '');
  return { x: PLACES[found?.[1] ?? 'Mid'], y: PLACES[found?.[2] ?? 'Mid'], slice: how === 'slice' };
}

/** The map from a viewBox to a viewport at the origin (SVG 2, 8.2). */
export function fitted(box: ViewBox | null, to: Size, fitting: ReturnType<typeof fittingOf>): Matrix {
  if (!box) return identity;
  const [kx, ky] = [to.width / box.width, to.height / box.height];
  if (fitting === 'stretch') return { a: kx, b: 0, c: 0, d: ky, e: -box.x * kx, f: -box.y * ky };
  const k = fitting.slice ? Math.max(kx, ky) : Math.min(kx, ky);
  const spare = { x: to.width - box.width * k, y: to.height - box.height * k };
  return { a: k, b: 0, c: 0, d: k, e: spare.x * fitting.x - box.x * k, f: spare.y * fitting.y - box.y * k };
}
