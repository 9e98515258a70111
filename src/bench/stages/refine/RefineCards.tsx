'use client';

import { usePreference } from '../../benchContext';
import { ViewsRow } from '../../panels/ViewsRow';
import { ToolCards } from '../shared/ToolCards';
import { useIsChosen } from '../shared/useIsChosen';
import { CoverageCard } from './CoverageCard';
import { DistanceCard } from './DistanceCard';
import { LineCard } from '../shared/LineCard';
import { NodeCard } from '../shared/NodeCard';
import { NotesCard } from './NotesCard';

/** What the checks say. */
function Checks() {
  const distance = usePreference('distance');
  const coverage = usePreference('coverage');
  return (
    <>
      <ViewsRow />
      {distance && <DistanceCard />}
      {coverage && <CoverageCard />}
      <NotesCard />
    </>
  );
}

/** The checks, and what is chosen. */
export function RefineCards() {
  const isAny = useIsChosen();
  return (
    <>
      <Checks />
      {isAny && <LineCard />}
      {isAny && <NodeCard />}
      {isAny && <ToolCards />}
    </>
  );
}
