import type { Note } from '../check/note';
import type { Drawing } from '../drawing/schema';
import { counted, edit, type Edit } from '../change/edit';

/** Notes waved through: they are kept with the drawing, and not shown again as long as they stay as they are. */
export function waveThrough(d: Drawing, notes: readonly Note[]): Edit {
  const known = new Set(d.waved);
  const fresh = notes.map((n) => n.key).filter((k) => !known.has(k));
  return fresh.length === 0
    ? edit('Wave through')
    : edit(counted('Wave through', fresh.length, 'note'), {
        step: 'setDrawing',
        before: { waved: [...d.waved] },
        after: { waved: [...d.waved, ...fresh] },
      });
}

/** The pieces of a photo's outlines that were waved through need no line; they are kept with the notes. */
export function waveOutline(d: Drawing, key: string): Edit {
  if (d.waved.includes(key)) return edit('Wave through');
  const sides = { before: { waved: [...d.waved] }, after: { waved: [...d.waved, key] } };
  return edit('Wave an outline through', { step: 'setDrawing', ...sides });
}

/** All notes that were waved through are shown again. */
export const unwave = (d: Drawing): Edit =>
  d.waved.length === 0
    ? edit('Show notes again')
    : edit('Show notes again', { step: 'setDrawing', before: { waved: [...d.waved] }, after: { waved: [] } });
