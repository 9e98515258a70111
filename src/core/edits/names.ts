import { edit, sidesOf, type Edit } from '../change/edit';
import { findItem } from '../drawing/find';
import type { Drawing } from '../drawing/schema';

/** A line, a flat, a group or a picture in the art called by a name; a line without one by its number. */
export function nameItem(d: Drawing, id: string, name: string): Edit {
  const found = findItem(d, id);
  const label = name ? 'Rename' : 'Take name away';
  const sides = found && sidesOf<{ name: string }>({ name: found.item.name ?? '' }, { name });
  if (!found || !sides) return edit(label);
  return edit(label, { step: stepOf[found.item.kind ?? 'line'], sheet: found.sheet.id, id, ...sides });
}

const stepOf = { line: 'setLine', group: 'setGroup', picture: 'setPicture', flat: 'setFlat' } as const;
