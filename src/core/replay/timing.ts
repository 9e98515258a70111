import { lineLength } from '../drawing/run';
import type { Drawing, Line } from '../drawing/schema';
import { distance } from '../geometry/point';
import { appearing, endOf, startOf } from './order';

/** How fast it goes: at so many page units a second, or so that all of it takes so many seconds. */
export type Pace = {
  readonly speed?: number;
  readonly length?: number;
  /** A rest after each part, s. */
  readonly pause: number;
};

/** Something that appears between two times, s: a line from its start to its end, a colour by fading in. */
export type Moment = {
  readonly kind: 'line' | 'colour';
  readonly id: string;
  readonly sheet: string;
  readonly start: number;
  readonly end: number;
  readonly line?: Line;
};
export type Timeline = { readonly moments: readonly Moment[]; readonly total: number };

/** The lifted pen is so much faster; colours fade in within so many seconds each, those of a part within so many together. */
const LIFTED = 4;
const [FADE, MOST_FADING] = [0.35, 1.2];
const [SHORTEST, PLAIN_SPEED] = [0.02, 600];

/** When what appears. @throws RangeError for a pace that is none. */
export function timelineOf(d: Drawing, pace: Pace): Timeline {
  const { speed = PLAIN_SPEED, length, pause } = pace;
  if (!(speed > 0) || (length !== undefined && !(length > 0)) || !(pause >= 0))
    throw new RangeError('a speed and a length must be above 0, a pause not below it');
  const list = appearing(d);
  const colours = new Map<string, number>();
  for (const x of list) if (x.kind === 'colour') colours.set(x.sheet, (colours.get(x.sheet) ?? 0) + 1);
  const moments: Moment[] = [];
  let at = 0;
  let rests = 0;
  let pen: Line | null = null;
  list.forEach((x, i) => {
    if (i > 0 && list[i - 1].sheet !== x.sheet) {
      at += pause;
      rests += pause;
    }
    if (x.kind === 'line') {
      if (pen) at += distance(endOf(pen), startOf(x.line)) / (speed * LIFTED);
      pen = x.line;
      const takes = Math.max(SHORTEST, lineLength(x.line) / speed);
      moments.push({ kind: 'line', id: x.line.id, sheet: x.sheet, start: at, end: at + takes, line: x.line });
      at += takes;
    } else {
      const step = Math.min(FADE, MOST_FADING / colours.get(x.sheet)!);
      moments.push({ kind: 'colour', id: x.id, sheet: x.sheet, start: at, end: at + FADE });
      // The last of a part is seen whole before it goes on.
      at += list[i + 1]?.kind === 'colour' && list[i + 1].sheet === x.sheet ? step : FADE;
    }
  });
  if (length === undefined || at === 0) return { moments, total: at };
  // A pause stays as long as it was asked for, as far as there is room for it.
  const kept = Math.min(rests, length / 2);
  return scaled(moments, at, length, rests, kept);
}

/** Moments brought to a length: what is drawn is scaled, what is rested by its own. */
function scaled(moments: readonly Moment[], total: number, length: number, rests: number, kept: number): Timeline {
  const k = (length - kept) / Math.max(1e-9, total - rests);
  const pauses = rests > 0 ? kept / rests : 0;
  let [was, now] = [0, 0];
  let sheet: string | null = null;
  let restEach = 0;
  const turns = moments.reduce((n, m, i) => n + (i > 0 && moments[i - 1].sheet !== m.sheet ? 1 : 0), 0);
  if (turns > 0) restEach = rests / turns;
  const out = moments.map((m): Moment => {
    if (sheet !== null && sheet !== m.sheet) {
      was += restEach;
      now += restEach * pauses;
    }
    sheet = m.sheet;
    const start = now + (m.start - was) * k;
    return { ...m, start, end: start + (m.end - m.start) * k };
  });
  return { moments: out, total: length };
}

/** How much of something has appeared at a time, 0…1. */
export const shareAt = ({ start, end }: Pick<Moment, 'start' | 'end'>, t: number): number =>
  t >= end ? 1 : t <= start ? 0 : (t - start) / (end - start);
