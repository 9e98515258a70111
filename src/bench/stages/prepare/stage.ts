import type { Stage } from '../stage';
import { PrepareCards } from './PrepareCards';

/** Pictures are placed and corrected, parts planned. */
export const prepare: Stage<'prepare'> = {
  id: 'prepare',
  label: 'Prepare',
  key: '1',
  first: 'place',
  heading: 'Prepare',
  cards: PrepareCards,
  progress({ references: { length } }) {
    return length === 0 ? 'no picture' : length === 1 ? 'reference ready' : `${length} references`;
  },
};
