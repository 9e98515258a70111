import { later } from '@/ui/later';
import type { Stage } from '../stage';
import { tallyOfDrawing } from '../shared/tally';

/** Files are made. */
export const deliver: Stage<'deliver'> = {
  id: 'deliver',
  label: 'Deliver',
  key: '6',
  first: 'select',
  heading: 'Deliver',
  cards: later(() => import('./DeliverCards').then((m) => m.DeliverCards)),
  progress: (d) => (tallyOfDrawing(d).lines === 0 ? '–' : 'SVG, PDF'),
};
