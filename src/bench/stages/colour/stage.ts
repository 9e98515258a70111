import { seenFlats } from '@/core/edits/flats';
import { formatCount } from '@/ui/format';
import { later } from '@/ui/later';
import type { Stage } from '../stage';

/** Areas between lines are filled. */
export const colour: Stage<'colour'> = {
  id: 'colour',
  label: 'Colour',
  key: '5',
  first: 'pour',
  keeps: ['select', 'pour', 'sample', 'shade', 'gradient'],
  heading: 'Colour',
  cards: later(() => import('./ColourCards').then((m) => m.ColourCards)),
  progress(d, areas) {
    const flats = seenFlats(d);
    const open = flats.filter((f) => f.open).length;
    if (areas && areas.there > 0) {
      const of = `${areas.coloured} of ${formatCount(areas.there, 'area')}`;
      return open > 0 ? `${of}, ${open} open` : of;
    }
    if (flats.length === 0) return '–';
    return open > 0 ? `${formatCount(flats.length, 'flat')}, ${open} open` : formatCount(flats.length, 'flat');
  },
};
