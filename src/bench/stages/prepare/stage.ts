import { later } from '@/ui/later';
import type { Stage } from '../stage';

/** Pictures are placed and corrected, parts planned. */
export const prepare: Stage<'prepare'> = {
  id: 'prepare',
  label: 'Prepare',
  key: '1',
  first: 'place',
  heading: 'Prepare',
  cards: later(() => import('./PrepareCards').then((m) => m.PrepareCards)),
  progress({ references: { length } }) {
    return length === 0 ? 'no picture' : length === 1 ? 'reference ready' : `${length} references`;
  },
};
