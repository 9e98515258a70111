'use client';

import { useDeferredValue } from 'react';
import { useBenchState } from '../../benchContext';
import { LinesList } from '../shared/LinesList';
import { LineCard } from '../shared/LineCard';
import { NodeCard } from '../shared/NodeCard';
import { SheetFigures } from '../shared/SheetFigures';
import { useIsChosen } from '../shared/useIsChosen';
import { NibCard } from './NibCard';
import { ProfileCard } from './ProfileCard';
import { StrokeCard } from './StrokeCard';
import { WeightsCard } from './WeightsCard';

/** What is chosen, and how it is inked. */
export function InkCards() {
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
