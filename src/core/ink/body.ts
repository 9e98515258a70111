import { shownCubics } from '../drawing/rounding';
import type { Line, Mark, Run } from '../drawing/schema';
import { arcLengthOf, type ArcLength } from '../geometry/arcLength';
import type { CubicRun } from '../geometry/along';
import { evaluate, straightCubic, type Cubic } from '../geometry/cubic';
import { growthOf, inverseOf, mapPoint, type Matrix } from '../geometry/matrix';
import { seeded } from '../seeded';
import { dashesOf, type Span } from './dashes';
import { nibDefinition } from './nibs';
import type { Section } from './nibs/nib';
import { fittedOutline, outlinesOf, walkedOutline, type Making } from './strokeOutline';
import { directionOn } from './sections';
import { overrun, wobbled } from './unsteady';
import { widthProfile, type WidthProfile } from './widths';

type Stroked = Pick<Line, 'runs' | 'style' | 'marks'>;

/** Whether SVG's own stroke, of one width throughout, draws a line as it is meant. */
export const isPlainStroke = ({ style, marks }: Stroked): boolean =>
  !marks?.length && (style.nib ?? round).kind === 'round' && !style.wobble && !style.overrun;

const round = { kind: 'round' } as const;

/** How far outlines in a file may lie from the true edge of their stroke, in page units. */
export const IN_FILES = 0.01;
/** For painting, in page units: nothing nearer can be seen at the largest zoom. */
const PAINTED = 0.05;

/**
 * The body of a line's stroke as closed outlines for the nonzero rule, one list for each of its runs: its width or its
 * marks, drawn with its nib, by a steady hand or not, in dashes or whole. With a `tolerance`, as few cubics as hold it;
 * without one, more of them, quickly, for painting.
 */
export function bodyOf(line: Stroked, tolerance?: number): Cubic[][] {
  const making = tolerance === undefined ? walkedOutline : fittedOutline(tolerance);
  return line.runs.flatMap((run, i) => bodyOfRun(line, run, i, tolerance ?? PAINTED, making));
}

function bodyOfRun({ style, marks }: Stroked, run: Run, index: number, tolerance: number, making: Making): Cubic[][] {
  const random = seeded((style.seed ?? 0) * 31 + index);
  const own = middleLine(run);
  let drawn: CubicRun = own;
  let widths: readonly Mark[] = marks?.length ? marks : [{ at: 0, left: style.width / 2, right: style.width / 2 }];
  if (style.wobble) drawn = wobbled(drawn, style.wobble, random, tolerance);
  if (style.overrun) {
    const length = arcLengthOf(drawn.cubics).length;
    const run1 = overrun(drawn, style.overrun, random);
    const whole = length + run1.before + run1.after;
    drawn = run1.run;
    if (whole > 0) widths = widths.map((m) => ({ ...m, at: (run1.before + m.at * length) / whole }));
  }
  const nib = style.nib ?? round;
  const definition = nibDefinition(nib);
  widths = withTaper(widths, drawn.closed, definition.taper?.(nib, drawn.closed) ?? null);
  const arc = arcLengthOf(drawn.cubics);
  const spans = style.dash ? dashesOf(arc.length, style.dash) : null;
  const shape = definition.shape?.(nib);
  const body = (piece: CubicRun, profile: readonly Mark[]): Cubic[][] =>
    outlined(
      piece,
      profile,
      shape,
      {
        cap: style.cap,
        join: style.join,
        miterLimit: style.miterLimit,
        tolerance,
      },
      making,
    );
  const profile = widthProfile(widths, drawn.closed);
  const outlines = spans
    ? spans.flatMap((s) =>
        body({ cubics: pieceOf(arc, drawn.cubics, s), closed: false }, marksOver(profile, s, arc.length)),
      )
    : body(drawn, widths);
  if (!definition.finish || arc.length === 0) return outlines;
  return definition.finish(nib, { outlines, length: arc.length, section: sectionsOf(drawn, arc, profile), random });
}

/** A lone node is a point that a nib rests on. */
function middleLine(run: Run): CubicRun {
  const { point } = run.nodes[0];
  const cubics = run.nodes.length === 1 && !run.closed ? [straightCubic(point, point)] : shownCubics(run);
  return { cubics, closed: run.closed };
}

/** Outlines with a nib of the given shape: as with a round one where the page is mapped so that it is round. */
function outlined(
  run: CubicRun,
  marks: readonly Mark[],
  shape: Matrix | undefined,
  options: Parameters<typeof outlinesOf>[2],
  making: Making,
): Cubic[][] {
  if (run.cubics.length === 0) return [];
  if (!shape) return outlinesOf(run, widthProfile(marks, run.closed), options, making);
  const back = inverseOf(shape);
  const mapped = (m: Matrix, list: readonly Cubic[]): Cubic[] => list.map((c) => c.map((p) => mapPoint(m, p)) as Cubic);
  const through = { ...run, cubics: mapped(back, run.cubics) };
  const finer = { ...options, tolerance: options.tolerance / Math.max(1, growthOf(shape)) };
  return outlinesOf(through, widthProfile(marks, run.closed), finer, making).map((o) => mapped(shape, o));
}

/** Widths with the nib's own taper: marks where either bends. */
function withTaper(
  marks: readonly Mark[],
  closed: boolean,
  taper: { knots: readonly number[]; factor: (at: number) => number } | null,
): readonly Mark[] {
  if (!taper) return marks;
  const profile = widthProfile(marks, closed);
  const ats = [...new Set([...taper.knots, ...marks.map((m) => m.at)])].sort((a, b) => a - b);
  return ats.map((at) => {
    const { left, right } = profile.at(at);
    const k = taper.factor(at);
    return { at, left: left * k, right: right * k };
  });
}

/** The cubics of a piece; a point where it has no length, for the caps of dashes that are none. */
function pieceOf(arc: ArcLength, cubics: readonly Cubic[], { from, to }: Span): Cubic[] {
  const piece = arc.piece(from, to);
  if (piece.length > 0) return piece;
  const { segment, t } = arc.at(from);
  const p = evaluate(cubics[segment], t);
  return [straightCubic(p, p)];
}

/** The widths of a piece, by shares of its own length. */
function marksOver(profile: WidthProfile, { from, to }: Span, length: number): Mark[] {
  const [a, b] = [from / length, to / length];
  const inner = profile.marks.filter((m) => m.at > a && m.at < b).map((m) => m.at);
  const ats = [a, a + (b - a) / 3, a + (2 * (b - a)) / 3, ...inner, b].sort((p, q) => p - q);
  return ats.map((at) => {
    const { left, right } = profile.at(at);
    return { at: b > a ? (at - a) / (b - a) : 0, left, right };
  });
}

function sectionsOf(run: CubicRun, arc: ArcLength, profile: WidthProfile): (at: number) => Section {
  return (at) => {
    const { segment, t } = arc.at(at * arc.length);
    const c = run.cubics[segment];
    const { left, right } = profile.at(at);
    return { p: evaluate(c, t), along: directionOn(c, t), left, right };
  };
}
