import { touchingFrom } from '../geometry/meetings';
import { evaluate } from '../geometry/cubic';
import { distance } from '../geometry/point';
import type { Curves } from './ends';
import type { Vertices } from './grid';
import type { Pieces } from './pieces';
import type { OnCurve } from './joints';

/** Where two curves run past each other so near that they touch: a place on each. */
export type Touch = readonly [OnCurve, OnCurve];

/** Pieces whose directions differ by no more than this (the sine) may touch between their ends. */
const ALIKE = 0.25;
/** Their pieces lie no further apart than so many times the reach: they are chords. */
const NEAR = 4;
/** A touching place lies about so many pieces from the pair that told of it, at most. */
const FAR = 2;

/** Looks at pairs of pieces that run past each other for places where their curves touch within `reach`, px; one for two curves. */
export class Touches {
  private readonly found = new Map<number, { touch: Touch; away: number }>();

  constructor(
    private readonly curves: Curves,
    private readonly v: Vertices,
    private readonly p: Pieces,
    private readonly reach: number,
  ) {}

  get list(): Touch[] {
    return [...this.found.values()].map((f) => f.touch);
  }

  look(i: number, j: number): void {
    const { p, reach } = this;
    const { x, y, step } = this.v;
    const { cubics, run } = this.curves;
    const m = p.source[i];
    const n = p.source[j];
    if (m === n || m >= cubics.length || n >= cubics.length || (run[m] === run[n] && Math.abs(n - m) === 1)) return;
    const a = p.from[i];
    const dx = x[p.to[i]] - x[a];
    const dy = y[p.to[i]] - y[a];
    const c = p.from[j];
    const ex = x[p.to[j]] - x[c];
    const ey = y[p.to[j]] - y[c];
    const long = Math.sqrt(dx * dx + dy * dy);
    if (Math.abs(dx * ey - dy * ex) > ALIKE * long * Math.sqrt(ex * ex + ey * ey)) return;
    const u = (dx * (y[c] - y[a]) - dy * (x[c] - x[a])) / long;
    const v = (dx * (y[p.to[j]] - y[a]) - dy * (x[p.to[j]] - x[a])) / long;
    if (u > 0 !== v > 0 || Math.min(Math.abs(u), Math.abs(v)) > (NEAR * reach) / step) return;
    const from = { a: (p.t0[i] + p.t1[i]) / 2, b: (p.t0[j] + p.t1[j]) / 2 };
    const { ta, tb } = touchingFrom(cubics[m], cubics[n], from.a, from.b);
    const isFar = (t: number, start: number, piece: number): boolean =>
      Math.abs(t - start) > FAR * (p.t1[piece] - p.t0[piece]) || t <= 0 || t >= 1;
    if (isFar(ta, from.a, i) || isFar(tb, from.b, j)) return;
    const touch: Touch = [
      { curve: m, t: ta, point: evaluate(cubics[m], ta) },
      { curve: n, t: tb, point: evaluate(cubics[n], tb) },
    ];
    const away = distance(touch[0].point, touch[1].point);
    const key = Math.min(m, n) * 2 ** 26 + Math.max(m, n);
    if (away <= reach && !((this.found.get(key)?.away ?? Infinity) <= away)) this.found.set(key, { touch, away });
  }
}
