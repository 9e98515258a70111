import { Segmented } from 'antd';
import { useEffect } from 'react';
import { seenFlats } from '@/core/edits/flats';
import { formatCount } from '@/ui/format';
import { useBenchStateLater, usePreference } from '../../benchContext';
import { lookForAreas } from '../../state/areas';
import { prefer } from '../../state/preferences';
import type { Stage } from '../stage';
import { LineCard } from '../shared/LineCard';
import { useIsChosen } from '../shared/useIsChosen';
import { BeneathCard } from './BeneathCard';
import { FillCard } from './FillCard';
import { FlatsCard } from './FlatsCard';
import { InsideCard } from './InsideCard';
import { PaletteCard } from './PaletteCard';
import { PullTonesCard } from './PullTonesCard';
import { SwapCard } from './SwapCard';
import { TakeColoursCard } from './TakeColoursCard';
import { ThisFlatCard } from './ThisFlatCard';
import { TonesCard } from './TonesCard';

/** The hand rests for so long, ms, before it is looked how many areas there are. */
const RESTS = 900;

/** Has the areas between the lines counted, whenever these have changed and the hand rests. */
function useAreasThere(): void {
  const drawing = useBenchStateLater((s) => s.drawing, 'idle');
  const { gap } = usePreference('pour');
  useEffect(() => {
    const timer = setTimeout(() => void lookForAreas(drawing, gap), RESTS);
    return () => clearTimeout(timer);
  }, [drawing, gap]);
}

const views = [
  { value: 'flats', label: 'Flats' },
  { value: 'palette', label: 'Palette' },
  { value: 'tones', label: 'Tones' },
] as const;

/** What is chosen, and one side of the colouring at a time: the flats, the colours, or the tones. */
function ColourCards() {
  const isAny = useIsChosen();
  const view = usePreference('colourCards');
  useAreasThere();
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
          <ThisFlatCard />
          <FillCard />
          <InsideCard />
          <BeneathCard />
          <PullTonesCard />
          <FlatsCard />
          <TakeColoursCard />
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
