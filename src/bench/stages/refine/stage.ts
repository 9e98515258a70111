import { formatCount } from '@/ui/format';
import { later } from '@/ui/later';
import { tallyOfDrawing } from '../shared/tally';
import type { Stage } from '../stage';

/** Lines are brought to the ink, nodes put right. */
export const refine: Stage<'refine'> = {
  id: 'refine',
  label: 'Refine',
  key: '3',
  first: 'nodes',
  cards: later(() => import('./RefineCards').then((m) => m.RefineCards)),
  progress(d) {
    const { nodes } = tallyOfDrawing(d);
    return nodes === 0 ? '–' : formatCount(nodes, 'node');
  },
};
