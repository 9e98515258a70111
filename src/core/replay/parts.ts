import { isPart } from '../drawing/items';
import type { Sheet } from '../drawing/schema';

/** Whether a sheet has lines of its own, after which its colours appear; one of flats alone comes after all lines. */
export const isPlainPart = (s: Pick<Sheet, 'items'>): boolean => s.items.length > 0 && isPart(s);
