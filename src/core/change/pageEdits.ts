import type { Drawing, Page } from '../drawing/schema';
import { edit, type Edit } from './edit';

/** The page with other figures. What is on it stays where it is. */
export function setPage(d: Drawing, after: Partial<Page>, label: string): Edit {
  const keys = (Object.keys(after) as (keyof Page)[]).filter((k) => d.page[k] !== after[k]);
  if (keys.length === 0) return edit(label);
  const pick = (page: Partial<Page>) => Object.fromEntries(keys.map((k) => [k, page[k]]));
  return edit(label, { step: 'setPage', before: pick(d.page), after: pick(after) });
}
