import { lineLength } from '../drawing/run';
import type { Drawing, Line } from '../drawing/schema';
import { distance } from '../geometry/point';
import { appearing, endOf, startOf, type Appearing } from './order';

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

/** The lifted pen is so much faster. A point is drawn as long as a line of so many page units. */
const [LIFTED, SHORTEST, PLAIN_SPEED] = [4, 4, 600];
/** A colour fades in within so many seconds; those of a part within so many times that together. */
const [FADE, MOST_FADING] = [0.35, 3.5];

/** When what appears. @throws RangeError for a pace that is none. */
export function timelineOf(d: Drawing, pace: Pace): Timeline {
  const { speed = PLAIN_SPEED, length, pause } = pace;
  if (!(speed > 0) || (length !== undefined && !(length > 0)) || !(pause >= 0))
    throw new RangeError('a speed and a length must be above 0, a pause not below it');
  const list = appearing(d);
  const plain = laidOut(list, { speed, pause, fade: FADE });
  if (length === undefined || plain.total === 0) return { moments: plain.moments, total: plain.total };
  // Rests and fading take as long as they do, as far as there is room for them; drawing takes what is left.
  const still = plain.total - plain.drawn;
  const kept = plain.drawn > 0 ? Math.min(still, length / 2) : length;
  const k = still > 0 ? kept / still : 1;
  const { moments } = laidOut(list, {
    speed: (speed * plain.drawn) / (length - kept),
    pause: pause * k,
    fade: FADE * k,
  });
  return { moments, total: length };
}

/** One thing after the other. `drawn`: how much of the time it is that the pen is at work, s; it goes by the speed alone. */
function laidOut(
  list: readonly Appearing[],
  { speed, pause, fade }: { speed: number; pause: number; fade: number },
): Timeline & { drawn: number } {
  const colours = new Map<string, number>();
  for (const x of list) if (x.kind === 'colour') colours.set(x.sheet, (colours.get(x.sheet) ?? 0) + 1);
  const moments: Moment[] = [];
  let [at, drawn] = [0, 0];
  let pen: Line | null = null;
  list.forEach((x, i) => {
    const [before, next] = [list[i - 1], list[i + 1]];
    if (before && before.sheet !== x.sheet) at += pause;
    if (x.kind === 'line') {
      const lifted = pen ? distance(endOf(pen), startOf(x.line)) / (speed * LIFTED) : 0;
      const takes = Math.max(SHORTEST, lineLength(x.line)) / speed;
      const start = at + lifted;
      moments.push({ kind: 'line', id: x.line.id, sheet: x.sheet, start, end: start + takes, line: x.line });
      at = start + takes;
      drawn += lifted + takes;
      pen = x.line;
    } else {
      moments.push({ kind: 'colour', id: x.id, sheet: x.sheet, start: at, end: at + fade });
      // The last of a part is seen whole before it goes on.
      const goesOn = next?.kind === 'colour' && next.sheet === x.sheet;
      at += goesOn ? Math.min(fade, (fade * MOST_FADING) / colours.get(x.sheet)!) : fade;
    }
  });
  return { moments, total: at, drawn };
}

/** How much of something has appeared at a time, 0…1. */
export const shareAt = ({ start, end }: Pick<Moment, 'start' | 'end'>, t: number): number =>
  t >= end ? 1 : t <= start ? 0 : (t - start) / (end - start);
