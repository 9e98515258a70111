'use client';

import { Segmented } from 'antd';
import { useEffect } from 'react';
import { useBenchStateLater, usePreference } from '../../benchContext';
import { lookForAreas } from '../../state/areas';
import { prefer } from '../../state/preferences';
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
import { WholeSheetCard } from './WholeSheetCard';

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
export function ColourCards() {
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
          <WholeSheetCard />
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
