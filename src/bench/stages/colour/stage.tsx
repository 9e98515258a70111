import { Segmented } from 'antd';
import { seenFlats } from '@/core/edits/flats';
import { formatCount } from '@/ui/format';
import { usePreference } from '../../benchContext';
import { prefer } from '../../state/preferences';
import type { Stage } from '../stage';
import { LineCard } from '../shared/LineCard';
import { useIsChosen } from '../shared/useIsChosen';
import { FillCard } from './FillCard';
import { FlatsCard } from './FlatsCard';
import { InsideCard } from './InsideCard';
import { PaletteCard } from './PaletteCard';
import { PullTonesCard } from './PullTonesCard';
import { SwapCard } from './SwapCard';
import { TakeColoursCard } from './TakeColoursCard';
import { TonesCard } from './TonesCard';

const views = [
  { value: 'flats', label: 'Flats' },
  { value: 'palette', label: 'Palette' },
  { value: 'tones', label: 'Tones' },
] as const;

/** What is chosen, and one side of the colouring at a time: the flats, the colours, or the tones. */
function ColourCards() {
  const isAny = useIsChosen();
  const view = usePreference('colourCards');
  return (
    <>
      <Segmented
        block
        size="small"
        aria-label="What the cards show"
        value={view}
        options={[...views]}
        onChange={(v) => prefer({ colourCards: v })}
      />
      {isAny && view === 'flats' && <LineCard />}
      {view === 'flats' && (
        <>
          <FlatsCard />
          <FillCard />
          <InsideCard />
          <TakeColoursCard />
          <PullTonesCard />
        </>
      )}
      {view === 'palette' && (
        <>
          <PaletteCard />
          <SwapCard />
        </>
      )}
      {view === 'tones' && <TonesCard />}
    </>
  );
}

/** Areas between lines are filled. */
export const colour: Stage<'colour'> = {
  id: 'colour',
  label: 'Colour',
  key: '5',
  first: 'pour',
  keeps: ['select', 'pour', 'sample', 'shade', 'gradient'],
  heading: 'Colour',
  cards: ColourCards,
  progress(d) {
    const flats = seenFlats(d);
    if (flats.length === 0) return '–';
    const open = flats.filter((f) => f.open).length;
    return open > 0 ? `${formatCount(flats.length, 'flat')}, ${open} open` : formatCount(flats.length, 'flat');
  },
};
