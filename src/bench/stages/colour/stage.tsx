import { seenFlats } from '@/core/edits/flats';
import { formatCount } from '@/ui/format';
import type { Stage } from '../stage';
import { LineCard } from '../shared/LineCard';
import { useIsChosen } from '../shared/useIsChosen';
import { FlatsCard } from './FlatsCard';

function ColourCards() {
  const isAny = useIsChosen();
  return (
    <>
      {isAny && <LineCard />}
      <FlatsCard />
    </>
  );
}

/** Areas between lines are filled. */
export const colour: Stage<'colour'> = {
  id: 'colour',
  label: 'Colour',
  key: '5',
  first: 'pour',
  heading: 'Colour',
  cards: ColourCards,
  progress(d) {
    const flats = seenFlats(d);
    if (flats.length === 0) return '–';
    const open = flats.filter((f) => f.open).length;
    return open > 0 ? `${formatCount(flats.length, 'flat')}, ${open} open` : formatCount(flats.length, 'flat');
  },
};
