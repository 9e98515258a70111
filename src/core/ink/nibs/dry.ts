import { reversed, type Cubic } from '../../geometry/cubic';
import { between, type Waypoint } from '../fitTrack';
import type { NibDefinition, Stroke } from './nib';

/** Streaks for each width of the stroke along it, at full dryness. */
const STREAKS = 1.1;
const MOST = 240;
/** Places along each edge of a streak. */
const PLACES = 5;

/**
 * A brush that runs dry: streaks without ink along the stroke, more of them and longer towards its end. Each is a lens
 * that runs against the body, so that the nonzero rule leaves it out; made of shares of the stroke's own length and width,
 * it is the same at every size.
 */
export const dry: NibDefinition<'dry'> = {
  kind: 'dry',
  label: 'dry',
  about: 'A brush that runs dry: streaks without ink, more of them towards the end.',
  plain: { kind: 'dry', dryness: 0.5 },
  finish: ({ dryness }, { outlines, length, section, random }) => {
    const middle = section(0.5);
    const width = middle.left + middle.right;
    if (width === 0 || dryness === 0) return outlines;
    const count = Math.min(MOST, Math.round((STREAKS * dryness * length) / width));
    const streaks = Array.from({ length: count }, (): Cubic[] => {
      // Towards the end of the stroke, more and longer.
      const at = 1 - random() ** (1 + dryness);
      const long = Math.min(1 - at, ((2 + 7 * random()) * width * (0.4 + at)) / length);
      const across = 1.8 * random() - 0.9;
      const half = (0.03 + 0.11 * random() * dryness) * (0.4 + 0.6 * at);
      return lens(section, at, at + long, across, half);
    });
    return [...outlines, ...streaks];
  },
};

/** A lens along the stroke, its middle `across` half-widths to the left, against the way in which bodies run. */
function lens(section: Stroke['section'], from: number, to: number, across: number, half: number): Cubic[] {
  const edge = (side: 1 | -1): Waypoint[] =>
    Array.from({ length: PLACES }, (_, i): Waypoint => {
      const t = i / (PLACES - 1);
      const { p, along, left, right } = section(from + (to - from) * t);
      const off = (across + side * half * Math.sin(Math.PI * t)) * (across > 0 ? left : right);
      return { x: p.x + along.y * off, y: p.y - along.x * off, dx: along.x, dy: along.y };
    });
  const way = (track: Waypoint[]): Cubic[] => track.slice(1).map((b, i) => between(track[i], b));
  return [...way(edge(-1)), ...way(edge(1)).map(reversed).reverse()];
}
