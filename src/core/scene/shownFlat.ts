import { shownOutline } from '../drawing/outline';
import type { Flat, Line } from '../drawing/schema';

const shown = new WeakMap<Flat, Line>();

/** A flat as the filled shape that is seen of it. */
export function shownFlat(flat: Flat): Line {
  let line = shown.get(flat);
  if (!line) {
    const { id, fill, opacity, blend, name } = flat;
    const runs = shownOutline(flat);
    const style = { stroke: '#000000', width: 0, cap: 'round', join: 'round', fill } as const;
    line = {
      id,
      runs,
      style,
      ...(opacity !== undefined && { opacity }),
      ...(blend && { blend }),
      ...(name && { name }),
    };
    shown.set(flat, line);
  }
  return line;
}
