import type { Stage } from '../stage';
import { tallyOfDrawing } from '../shared/tally';
import { DeliverCards } from './DeliverCards';

/** Files are made. */
export const deliver: Stage<'deliver'> = {
  id: 'deliver',
  label: 'Deliver',
  key: '6',
  first: 'select',
  heading: 'Deliver',
  cards: DeliverCards,
  progress: (d) => (tallyOfDrawing(d).lines === 0 ? '–' : 'SVG, PDF'),
};
