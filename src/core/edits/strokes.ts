import { shaded } from '../colour/colour';
import { findLine, type Found } from '../drawing/find';
import type { Paint } from '../drawing/paint';
import type { Drawing, Line, Mark, Style } from '../drawing/schema';
import { nodeShares } from '../ink/carriedMarks';
import type { Rank } from '../ink/hierarchy';
import { colourOf, fillBeside } from '../scene/ink';
import { marksOf, reversedMarks, scaledMarks, shiftedMarks, turnedMarks, type Profile } from '../ink/profiles';
import { widthProfile } from '../ink/widths';
import type { Step } from '../change/change';
import { counted, edit, type Edit } from '../change/edit';
import { lineStyleStep, styleLines, withMarks } from './lines';

const found = (d: Drawing, ids: Iterable<string>): Found[] => [...new Set(ids)].flatMap((id) => findLine(d, id) ?? []);

/** Lines with other width marks, by their id; an empty list for a width that is the same throughout. */
export function setMarks(d: Drawing, marksById: ReadonlyMap<string, readonly Mark[]>, label: string): Edit {
  const steps = found(d, marksById.keys()).flatMap(({ sheet, line }): Step[] => {
    const marks = marksById.get(line.id)!;
    if (marks === line.marks || (marks.length === 0 && !line.marks?.length)) return [];
    return [
      {
        step: 'setLine',
        sheet: sheet.id,
        id: line.id,
        before: { marks: [...(line.marks ?? [])] },
        after: { marks: [...marks] },
      },
    ];
  });
  return edit(label, steps);
}

/** Lines with the widths that were read for them: their plain width becomes the mean of these. */
export function setReadWidths(d: Drawing, marksById: ReadonlyMap<string, readonly Mark[]>, label: string): Edit {
  const { steps } = setMarks(d, marksById, label);
  return edit(
    label,
    steps.map((s) => {
      const line = s.step === 'setLine' ? findLine(d, s.id)?.line : undefined;
      if (s.step !== 'setLine' || !line) return s;
      const style: Style = { ...line.style, width: meanWidth(marksById.get(s.id)!) };
      return { ...s, before: { ...s.before, style: line.style }, after: { ...s.after, style } };
    }),
  );
}

/** The mean of a stroke's widths along it. */
function meanWidth(marks: readonly Mark[]): number {
  const [first] = marks;
  const between = marks.slice(1).map((m, i) => {
    const before = marks[i];
    return ((m.at - before.at) * (m.left + m.right + before.left + before.right)) / 2;
  });
  const over = marks.at(-1)!.at - first.at;
  return over > 0 ? between.reduce((a, b) => a + b, 0) / over : first.left + first.right;
}

const each = (d: Drawing, ids: Iterable<string>, make: (line: Line) => readonly Mark[]): Map<string, readonly Mark[]> =>
  new Map(found(d, ids).map(({ line }) => [line.id, make(line)]));

/** Lines swelled by a profile, each by its own width. */
export const applyProfile = (d: Drawing, ids: readonly string[], profile: Profile): Edit =>
  setMarks(
    d,
    each(d, ids, (l) => marksOf(profile, l.style.width)),
    `Apply “${profile.name}”`.slice(0, 200),
  );

/** Widths made so many times as great: marks and plain widths alike. */
export function scaleWidths(d: Drawing, ids: readonly string[], k: number, label: string): Edit {
  const steps = found(d, ids).map(({ sheet, line }): Step => {
    const style: Style = { ...line.style, width: Math.min(10_000, line.style.width * k) };
    const marks = line.marks?.length ? { marks: scaledMarks(line.marks, k) } : {};
    const had = line.marks?.length ? { marks: [...line.marks] } : {};
    return {
      step: 'setLine',
      sheet: sheet.id,
      id: line.id,
      before: { style: line.style, ...had },
      after: { style, ...marks },
    };
  });
  return edit(label, steps);
}

/** Lines of a plain width; what has marks keeps its profile, as much wider or thinner on the whole. Their sheets take it too. */
export function setWidths(d: Drawing, ids: readonly string[], width: number, label: string): Edit {
  const { steps } = styleLines(d, ids, { width }, label);
  return edit(
    label,
    steps.map((s) => {
      const line = s.step === 'setLine' ? findLine(d, s.id)?.line : undefined;
      if (s.step !== 'setLine' || !line?.marks?.length || line.style.width === 0) return s;
      const marks = scaledMarks(line.marks, width / line.style.width);
      return { ...s, before: { ...s.before, marks: [...line.marks] }, after: { ...s.after, marks } };
    }),
  );
}

/** Width profiles met from the other end. */
export const turnProfiles = (d: Drawing, ids: readonly string[]): Edit =>
  setMarks(
    d,
    each(d, ids, (l) => turnedMarks(l.marks ?? [])),
    counted('Turn the profile of', ids.length, 'line'),
  );

/** The left side’s widths on the right and the other way round. */
export const swapSides = (d: Drawing, ids: readonly string[]): Edit =>
  setMarks(
    d,
    each(d, ids, (l) => turnedMarks(reversedMarks(l.marks ?? []))),
    counted('Swap the sides of', ids.length, 'line'),
  );

/** One width throughout: the mean of what there was. */
export function evenOut(d: Drawing, ids: readonly string[]): Edit {
  const lines = found(d, ids).filter(({ line }) => line.marks?.length);
  const steps = lines.map(({ sheet, line }): Step => {
    const profile = widthProfile(line.marks!, line.runs[0].closed);
    const at = Array.from({ length: 64 }, (_, i) => profile.at((i + 0.5) / 64));
    const width = at.reduce((sum, w) => sum + w.left + w.right, 0) / at.length;
    return {
      step: 'setLine',
      sheet: sheet.id,
      id: line.id,
      before: { marks: [...line.marks!], style: line.style },
      after: { marks: [], style: { ...line.style, width: Math.min(10_000, Math.round(width * 1000) / 1000) } },
    };
  });
  return edit(counted('Even out', lines.length, 'line'), steps);
}

/** The marks of the two parts of a line that is cut at a share of its length. */
export function cutMarks(marks: readonly Mark[], at: number): [Mark[], Mark[]] {
  const { left, right } = widthProfile(marks).at(at);
  const here = { left, right };
  const before = marks.filter((m) => m.at < at - 1e-6).map((m) => ({ ...m, at: m.at / at }));
  const after = marks.filter((m) => m.at > at + 1e-6).map((m) => ({ ...m, at: (m.at - at) / (1 - at) }));
  return [
    [...before, { ...here, at: 1 }],
    [{ ...here, at: 0 }, ...after],
  ];
}

/** The share of a line's length at which a node of its first run lies. */
export const shareOfNode = (line: Pick<Line, 'runs'>, node: number): number => nodeShares(line.runs[0])[node];

/** An edit that makes a closed line begin at another node, with its width marks where they were. */
export const withShiftedMarks = (e: Edit, line: Line, node: number): Edit =>
  line.marks?.length && line.runs.length === 1
    ? withMarks(e, line, shiftedMarks(line.marks, shareOfNode(line, node)))
    : e;

/** Lines whose chances fall out otherwise: each gets a seed of its own, made from what it had. */
export function reseedLines(d: Drawing, ids: readonly string[]): Edit {
  const steps = found(d, ids).map((f, i): Step => {
    const { line } = f;
    const seed = ((line.style.seed ?? 0) * 48_271 + 7_919 * (i + 1)) % 999_983;
    return lineStyleStep(f, { ...line.style, seed });
  });
  return edit(counted('Draw anew', steps.length, 'line'), steps);
}

/**
 * Lines in a darker tint of what they enclose or border, `by` 0…1; `linked` ones follow that fill from then on. Lines with
 * nothing beside them keep their colour.
 */
export function tintLines(d: Drawing, ids: readonly string[], by: number, linked: boolean): Edit {
  const steps = found(d, ids).flatMap((f): Step[] => {
    const { line } = f;
    const fill = fillBeside(d, line);
    if (!fill) return [];
    const now = shaded(colourOf(d, fill), by);
    const stroke: Paint = linked ? { of: 'beside', by, else: now } : now;
    return [lineStyleStep(f, { ...line.style, stroke })];
  });
  return edit(counted('Tint', steps.length, 'line'), steps);
}

/** A weight for each line by its rank. */
export function weightLines(
  d: Drawing,
  ranks: ReadonlyMap<string, Rank>,
  weights: Readonly<Record<Rank, number>>,
): Edit {
  const label = counted('Weight', ranks.size, 'line');
  const edits = (Object.keys(weights) as Rank[]).map((rank) => {
    const ids = [...ranks].flatMap(([id, r]) => (r === rank ? [id] : []));
    return setWidths(d, ids, weights[rank], label).steps.filter((s) => s.step === 'setLine');
  });
  return edit(label, edits.flat());
}

/** Profiles kept with the drawing, in place of those that were. */
export const keepProfiles = (d: Drawing, profiles: readonly Profile[], label: string): Edit =>
  edit(label, {
    step: 'setDrawing',
    before: { profiles: (d.profiles ?? []).map(copied) },
    after: { profiles: profiles.map(copied) },
  });

const copied = (p: Profile) => ({ ...p, marks: [...p.marks] });
