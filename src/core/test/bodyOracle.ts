import type { CubicRun } from '../geometry/along';
import { derivative, evaluate, type Cubic } from '../geometry/cubic';
import type { Mark } from '../drawing/schema';
import { widthProfile } from '../ink/widths';

/** Scan lines for each px. */
const FINENESS = 16;

type Span = [number, number];
type Section = { x: number; y: number; tx: number; ty: number; left: number; right: number; travelled: number };

/**
 * The body of a stroke by brute force: discs and quads along a finely walked line, cut off at butt ends; as the spans
 * that it covers on each of 16 scan lines to the px. Independent of how outlines are made, but for the widths.
 */
export function bodyBySweep(run: CubicRun, marks: readonly Mark[], cap: 'butt' | 'round', perCubic = 900) {
  const sections = sectionsOf(run.cubics, perCubic);
  const length = sections.at(-1)!.travelled;
  const widths = widthProfile(marks, run.closed);
  for (const s of sections) {
    const w = widths.at(length > 0 ? s.travelled / length : 0);
    [s.left, s.right] = [w.left, w.right];
  }
  const rows = new Map<number, Span[]>();
  const put = (row: number, from: number, to: number): void => {
    if (!(to > from)) return;
    const list = rows.get(row);
    if (list) list.push([from, to]);
    else rows.set(row, [[from, to]]);
  };
  sections.forEach((s, i) => {
    if (s.left === s.right) disc(s, length, sections, cap === 'butt' && !run.closed, put);
    const next = sections[i + 1] ?? (run.closed ? sections[0] : undefined);
    if (next) quad(s, next, put);
  });
  return rows;
}

function sectionsOf(cubics: readonly Cubic[], perCubic: number): Section[] {
  const sections: Section[] = [];
  let travelled = 0;
  for (const c of cubics) {
    for (let i = 0; i <= perCubic; i++) {
      // Denser about both ends, where hand-made curves turn.
      const t = 0.5 - 0.5 * Math.cos((Math.PI * i) / perCubic);
      const p = evaluate(c, t);
      const last = sections.at(-1);
      if (last) travelled += Math.hypot(p.x - last.x, p.y - last.y);
      let d = derivative(c, t);
      let l = Math.hypot(d.x, d.y);
      if (l < 1e-9) {
        d = derivative(c, t < 0.5 ? t + 1e-4 : t - 1e-4);
        l = Math.hypot(d.x, d.y);
      }
      if (l > 1e-12) sections.push({ ...p, tx: d.x / l, ty: d.y / l, left: 0, right: 0, travelled });
    }
  }
  if (sections.length === 0) sections.push({ ...cubics[0][0], tx: 1, ty: 0, left: 0, right: 0, travelled: 0 });
  return sections;
}

type Put = (row: number, from: number, to: number) => void;

function disc(s: Section, length: number, all: Section[], isCut: boolean, put: Put): void {
  const r = s.left;
  const ends = !isCut
    ? []
    : [s.travelled < r ? { q: all[0], k: 1 } : null, length - s.travelled < r ? { q: all.at(-1)!, k: -1 } : null];
  for (let row = Math.ceil((s.y - r) * FINENESS); row <= (s.y + r) * FINENESS; row++) {
    const y = row / FINENESS;
    const half = Math.sqrt(Math.max(0, r * r - (y - s.y) ** 2));
    let [from, to] = [s.x - half, s.x + half];
    for (const end of ends) {
      if (!end) continue;
      const [tx, ty] = [end.k * end.q.tx, end.k * end.q.ty];
      const off = ty * (y - end.q.y);
      if (Math.abs(tx) < 1e-12) {
        if (off < 0) to = from;
      } else if (tx > 0) from = Math.max(from, end.q.x - off / tx);
      else to = Math.min(to, end.q.x - off / tx);
    }
    put(row, from, to);
  }
}

function quad(a: Section, b: Section, put: Put): void {
  const corners = [
    [a.x + a.ty * a.left, a.y - a.tx * a.left],
    [b.x + b.ty * b.left, b.y - b.tx * b.left],
    [b.x - b.ty * b.right, b.y + b.tx * b.right],
    [a.x - a.ty * a.right, a.y + a.tx * a.right],
  ];
  const ys = corners.map((c) => c[1]);
  for (let row = Math.ceil(Math.min(...ys) * FINENESS); row <= Math.max(...ys) * FINENESS; row++) {
    const y = row / FINENESS;
    const xs: number[] = [];
    corners.forEach(([x0, y0], i) => {
      const [x1, y1] = corners[(i + 1) % 4];
      if (y0 <= y !== y1 <= y) xs.push(x0 + ((y - y0) / (y1 - y0)) * (x1 - x0));
    });
    xs.sort((p, q) => p - q);
    for (let i = 0; i + 1 < xs.length; i += 2) put(row, xs[i], xs[i + 1]);
  }
}

/** What closed outlines cover by the nonzero rule, on the same scan lines. */
export function bodyOfOutlines(outlines: readonly (readonly Cubic[])[], perCubic = 64) {
  const crossings = new Map<number, [number, number][]>();
  for (const outline of outlines) {
    for (const c of outline) {
      let last = c[0];
      for (let i = 1; i <= perCubic; i++) {
        const p = i === perCubic ? c[3] : evaluate(c, i / perCubic);
        const [low, high] = [Math.min(last.y, p.y), Math.max(last.y, p.y)];
        for (let row = Math.ceil(low * FINENESS); row < high * FINENESS; row++) {
          const y = row / FINENESS;
          const x = last.x + ((y - last.y) / (p.y - last.y)) * (p.x - last.x);
          const list = crossings.get(row);
          const entry: [number, number] = [x, p.y > last.y ? 1 : -1];
          if (list) list.push(entry);
          else crossings.set(row, [entry]);
        }
        last = p;
      }
    }
  }
  const rows = new Map<number, Span[]>();
  for (const [row, list] of crossings) {
    list.sort((a, b) => a[0] - b[0]);
    let winding = 0;
    const spans: Span[] = [];
    list.forEach(([x, step], i) => {
      if (winding !== 0) spans.push([list[i - 1][0], x]);
      winding += step;
    });
    rows.set(row, spans);
  }
  return rows;
}

/** The area that only one of two bodies covers, and that of the first, in square px. */
export function areaBetween(a: Map<number, Span[]>, b: Map<number, Span[]>): { difference: number; area: number } {
  let [difference, area] = [0, 0];
  for (const row of new Set([...a.keys(), ...b.keys()])) {
    const [p, q] = [merged(a.get(row) ?? []), merged(b.get(row) ?? [])];
    const [both, one, other] = [overlap(p, q), total(p), total(q)];
    difference += one + other - 2 * both;
    area += one;
  }
  return { difference: difference / FINENESS, area: area / FINENESS };
}

function merged(spans: Span[]): Span[] {
  const sorted = [...spans].sort((a, b) => a[0] - b[0]);
  const out: Span[] = [];
  for (const [from, to] of sorted) {
    const last = out.at(-1);
    if (last && from <= last[1]) last[1] = Math.max(last[1], to);
    else out.push([from, to]);
  }
  return out;
}

const total = (spans: Span[]): number => spans.reduce((sum, [a, b]) => sum + b - a, 0);

function overlap(p: Span[], q: Span[]): number {
  let [i, j, sum] = [0, 0, 0];
  while (i < p.length && j < q.length) {
    sum += Math.max(0, Math.min(p[i][1], q[j][1]) - Math.max(p[i][0], q[j][0]));
    if (p[i][1] < q[j][1]) i++;
    else j++;
  }
  return sum;
}
