import type { Mark } from '../drawing/schema';
import { thinnedMarks } from './thinMarks';
import { widthProfile } from './widths';

/** How far a mark thinned away may lie from the way between its neighbours, in page units. */
const THINNING = 0.15;
/** Samples on either side that a pressure is averaged over: pens report it in coarse steps. */
const NEAR = 3;
/** More samples than this say nothing more: of longer strokes every second is looked at, or every third. */
const ENOUGH = 600;

/** A point that the response goes through: at a pressure (0…1) the stroke has such a share of its width. */
export type Answer = { readonly pressure: number; readonly share: number };

/** How widths answer to pressure: through these points, in the order of their pressures, from none (0) to full (1). */
export type Response = readonly Answer[];

/** The largest share of a stroke's width that pressure gives. */
export const MOST_SHARE = 2;

/** The responses that are there from the start. */
export const firstResponses: readonly { readonly name: string; readonly response: Response }[] = [
  { name: 'evenly', response: [at(0, 0.2), at(1, 1.5)] },
  { name: 'early', response: [at(0, 0.2), at(0.15, 0.8), at(0.45, 1.3), at(1, 1.5)] },
  { name: 'late', response: [at(0, 0.2), at(0.55, 0.45), at(0.85, 1), at(1, 1.5)] },
  { name: 'firm', response: [at(0, 0.7), at(0.5, 1), at(1, 1.3)] },
];

/** Full pressure is one and a half times the width, none a fifth of it; the way there is straight. */
export const firstResponse: Response = firstResponses[0].response;

function at(pressure: number, share: number): Answer {
  return { pressure, share };
}

/**
 * The share of the stroke's width by pressure (0 to 1): smooth through all points, and never beyond two neighbours.
 * @throws RangeError for a response without points, or whose pressures do not rise.
 */
export function answering(response: Response): (pressure: number) => number {
  const profile = widthProfile(response.map(({ pressure, share }) => ({ at: pressure, left: share, right: share })));
  return (pressure) => profile.at(Math.min(1, Math.max(0, pressure))).left;
}

/** A place along a stroke, page units from its start, and how hard the pen was pressed there (0…1). */
export type Pressed = { readonly travelled: number; readonly pressure: number };

/**
 * Width marks from a pen's pressure along a stroke: as few as keep within a tolerance. A closed stroke is as wide at its
 * end as where it begins.
 */
export function marksFromPressure(
  samples: readonly Pressed[],
  width: number,
  response: Response = firstResponse,
  closed = false,
): Mark[] {
  const total = samples.at(-1)?.travelled ?? 0;
  const n = samples.length;
  if (n < 2 || total <= 0) return [];
  const shareAt = answering(response);
  const pressureNear = (i: number): number => {
    let [sum, count] = [0, 0];
    for (let k = i - NEAR; k <= i + NEAR; k++) {
      const s = closed ? samples[(k + n) % n] : samples[k];
      if (!s) continue;
      sum += s.pressure;
      count += 1;
    }
    return sum / count;
  };
  const stride = Math.ceil(n / ENOUGH);
  const smooth = samples.flatMap((s, i): Mark[] => {
    if (i % stride !== 0 && i !== n - 1) return [];
    const half = (shareAt(pressureNear(closed && i === n - 1 ? 0 : i)) * width) / 2;
    return [{ at: Math.min(1, s.travelled / total), left: half, right: half }];
  });
  return thinnedMarks(smooth, THINNING);
}
