import svgpath from 'svgpath';
import type { Run } from '../../drawing/schema';
import { runFromCubics } from '../../drawing/fromCubics';
import type { Cubic } from '../../geometry/cubic';
import { mapPoint, type Matrix } from '../../geometry/matrix';
import { distance, mix, type Point } from '../../geometry/point';
import { lengthOf, type Along, type Measures } from './lengths';

type Attributes = Readonly<Record<string, string>>;
type Read = (key: string, along: Along) => number | null;

/** An element's outline as path data (SVG 2, chapters 9 and 10); null for one that draws none. */
export function outlineOf(name: string, a: Attributes, m: Measures): string | null {
  const read: Read = (key, along) => (a[key] === 'auto' ? null : lengthOf(a[key], m, along));
  const x = (key: string): number => read(key, 'x') ?? 0;
  const y = (key: string): number => read(key, 'y') ?? 0;
  switch (name) {
    case 'path':
      return pathOf(a.d);
    case 'line':
      return `M${x('x1')} ${y('y1')}L${x('x2')} ${y('y2')}`;
    case 'polyline':
    case 'polygon': {
      const places = evenPlaces(a.points ?? '');
      return places === '' ? null : `M${places}${name === 'polygon' ? 'Z' : ''}`;
    }
    case 'circle': {
      const r = read('r', 'both') ?? 0;
      return ellipse(x('cx'), y('cy'), r, r);
    }
    case 'ellipse': {
      const [rx, ry] = [read('rx', 'x'), read('ry', 'y')];
      return ellipse(x('cx'), y('cy'), rx ?? ry ?? 0, ry ?? rx ?? 0);
    }
    case 'rect':
      return rectangle(read, x('x'), y('y'), x('width'), y('height'));
    default:
      return null;
  }
}

/** Path data as an attribute, or as CSS has it: `path("…")`. */
const pathOf = (d: string | undefined): string | null => {
  if (d === undefined || d === 'none') return null;
  return d.startsWith('path(') ? d.replace(/^path\(\s*["']?/, '').replace(/["']?\s*\)$/, '') : d;
};

/** The places of a polyline; a figure that is left over at its end is of no place. */
function evenPlaces(text: string): string {
  const figures = text.match(/[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi) ?? [];
  return figures.slice(0, figures.length - (figures.length % 2)).join(' ');
}

const ellipse = (x: number, y: number, rx: number, ry: number): string | null =>
  rx > 0 && ry > 0 ? `M${x + rx} ${y}A${rx} ${ry} 0 0 1 ${x - rx} ${y}A${rx} ${ry} 0 0 1 ${x + rx} ${y}Z` : null;

function rectangle(read: Read, x: number, y: number, w: number, h: number): string | null {
  if (!(w > 0 && h > 0)) return null;
  const [askedX, askedY] = [notNegative(read('rx', 'x')), notNegative(read('ry', 'y'))];
  const rx = Math.min(w / 2, askedX ?? askedY ?? 0);
  const ry = Math.min(h / 2, askedY ?? askedX ?? 0);
  if (!(rx > 0 && ry > 0)) return `M${x} ${y}H${x + w}V${y + h}H${x}Z`;
  const arc = (px: number, py: number): string => `A${rx} ${ry} 0 0 1 ${px} ${py}`;
  return `M${x + rx} ${y}H${x + w - rx}${arc(x + w, y + ry)}V${y + h - ry}${arc(x + w - rx, y + h)}H${x + rx}${arc(x, y + h - ry)}V${y + ry}${arc(x + rx, y)}Z`;
}

const notNegative = (v: number | null): number | null => (v !== null && v >= 0 ? v : null);

/** Ends of a closed figure nearer than this, in page units, are one place. */
const SAME = 1e-6;

/** The runs of some path data, and whether it was read to its end. */
export type ReadRuns = { readonly runs: Run[]; readonly isWhole: boolean };

/**
 * Path data under a transform as runs of nodes: arcs and quadratic curves become cubics. Straight segments have no handles.
 * Data that is broken is read up to there (SVG 2, 9.5.4). A figure without length is a run of one node.
 */
export function runsOf(data: string, map: Matrix): ReadRuns {
  const path = svgpath(data);
  const { err, segments } = path as unknown as { err: string; segments: Segment[] };
  const reader = new FigureReader(map);
  // Arcs are put into cubics by their library, which needs places that are absolute.
  const known = segments.some(([c]) => c === 'a' || c === 'A') ? arcless(path) : segments;
  for (const segment of known) reader.take(segment);
  return { runs: reader.ended(), isWhole: err === '' && reader.isSound };
}

type Segment = readonly [string, ...number[]];
const arcless = (path: ReturnType<typeof svgpath>): Segment[] =>
  (path.abs().unshort().unarc() as unknown as { segments: Segment[] }).segments;

class FigureReader {
  isSound = true;
  private readonly runs: Run[] = [];
  private cubics: Cubic[] = [];
  /** Where the pen is, in the path's own units; where it was put down, and what the last curve was bent by. */
  private x = 0;
  private y = 0;
  private startX = 0;
  private startY = 0;
  private bend: Point | null = null;
  private bendOf = '';
  /** The same place on the page. */
  private at: Point;
  /** Whether nothing was drawn since the pen was put down. */
  private isFresh = false;

  constructor(private readonly map: Matrix) {
    this.at = mapPoint(map, { x: 0, y: 0 });
  }

  take(segment: Segment): void {
    for (let i = 1; i < segment.length; i++) if (!Number.isFinite(segment[i])) this.isSound = false;
    if (!this.isSound) return;
    const command = segment[0];
    const kind = command.toUpperCase();
    const [dx, dy] = kind === command ? [0, 0] : [this.x, this.y];
    const v = (i: number): number => segment[i] as number;
    const p = (i: number): Point => ({ x: v(i) + dx, y: v(i + 1) + dy });
    switch (kind) {
      case 'M': {
        this.end(false);
        const to = p(1);
        [this.x, this.y] = [this.startX, this.startY] = [to.x, to.y];
        this.at = mapPoint(this.map, to);
        this.isFresh = true;
        break;
      }
      case 'L':
        this.line(p(1));
        break;
      case 'H':
        this.line({ x: v(1) + dx, y: this.y });
        break;
      case 'V':
        this.line({ x: this.x, y: v(1) + dy });
        break;
      case 'C':
        this.curve(p(1), p(3), p(5));
        this.bend = p(3);
        break;
      case 'S':
        this.curve(this.mirrored('C'), p(1), p(3));
        this.bend = { x: v(1) + dx, y: v(2) + dy };
        break;
      case 'Q':
        this.quadratic(p(1), p(3));
        break;
      case 'T':
        this.quadratic(this.mirrored('Q'), p(1));
        break;
      case 'Z':
        this.close();
    }
    this.bendOf = kind === 'S' ? 'C' : kind === 'T' ? 'Q' : kind;
  }

  /** What the last curve of a kind was bent by, beyond where the pen is; the pen itself after anything else. */
  private mirrored(kind: 'C' | 'Q'): Point {
    const here = { x: this.x, y: this.y };
    if (this.bendOf !== kind || !this.bend) return here;
    return { x: 2 * here.x - this.bend.x, y: 2 * here.y - this.bend.y };
  }

  private quadratic(b: Point, to: Point): void {
    // Degree raised: the same curve.
    const here = { x: this.x, y: this.y };
    this.curve(mix(here, b, 2 / 3), mix(to, b, 2 / 3), to);
    this.bend = b;
  }

  private curve(b: Point, c: Point, to: Point): void {
    // In the units of the path: relative ones are from where this begins.
    const [q, r] = [mapPoint(this.map, b), mapPoint(this.map, c)];
    this.to(mapPoint(this.map, to), q, r);
    [this.x, this.y] = [to.x, to.y];
  }

  private line(to: Point): void {
    const p = mapPoint(this.map, to);
    this.to(p, this.at, p);
    [this.x, this.y] = [to.x, to.y];
  }

  private close(): void {
    const start = mapPoint(this.map, { x: this.startX, y: this.startY });
    // Closed where it begins, it is a point, which caps may show.
    if (distance(this.at, start) > SAME || this.isFresh) this.to(start, this.at, start);
    this.end(true);
    [this.x, this.y] = [this.startX, this.startY];
    this.at = start;
  }

  ended(): Run[] {
    this.end(false);
    return this.runs;
  }

  private to(p: Point, b: Point, c: Point): void {
    this.isFresh = false;
    this.cubics.push([this.at, b, c, p]);
    this.at = p;
  }

  private end(closed: boolean): void {
    const run = runOfFigure(this.cubics, closed, this.at);
    if (run) this.runs.push(run);
    this.cubics = [];
  }
}

function runOfFigure(cubics: Cubic[], closed: boolean, at: Point): Run | null {
  const list = cubics.filter((c) => c.some((p) => distance(p, c[0]) > SAME));
  if (list.length === 0)
    return cubics.length > 0 ? { closed: false, nodes: [{ point: at, in: null, out: null, kind: 'corner' }] } : null;
  return runFromCubics(list, closed && (list.length > 1 || distance(list[0][0], list[0][3]) <= SAME));
}
