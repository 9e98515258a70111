import { useDeferredValue } from 'react';
import { formatLength } from '@/ui/format';
import { useBenchState } from '../../benchContext';
import { LinesList } from '../shared/LinesList';
import { LineCard } from '../shared/LineCard';
import { NodeCard } from '../shared/NodeCard';
import type { Stage } from '../stage';
import { tallyOfDrawing } from '../shared/tally';
import { SheetFigures } from '../shared/SheetFigures';
import { useIsChosen } from '../shared/useIsChosen';
import { InkOptions } from './InkOptions';
import { NibCard } from './NibCard';
import { ProfileCard } from './ProfileCard';
import { StrokeCard } from './StrokeCard';
import { WeightsCard } from './WeightsCard';

function InkCards() {
  const isAny = useIsChosen();
  const tool = useDeferredValue(useBenchState((s) => s.tool));
  return (
    <>
      {!isAny && <SheetFigures />}
      {isAny && <LineCard />}
      {isAny && <NodeCard />}
      {isAny && tool !== 'readWidths' && (
        <>
          <ProfileCard />
          <NibCard />
          <StrokeCard />
          <WeightsCard />
        </>
      )}
      <LinesList />
    </>
  );
}

/** Strokes are given their widths, nibs and ends. */
export const ink: Stage<'ink'> = {
  id: 'ink',
  label: 'Ink',
  key: '4',
  first: 'swell',
  cards: InkCards,
  options: { select: InkOptions },
  progress(d) {
    const { widths } = tallyOfDrawing(d);
    const [first] = widths;
    if (first === undefined) return '–';
    return widths.size === 1 ? formatLength(first, 'pt', 1) : `${widths.size} widths`;
  },
};
