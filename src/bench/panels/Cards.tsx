'use client';

import { useDeferredValue } from 'react';
import { findLine, sheetOf } from '@/core/drawing/find';
import { useBenchState, useBenchStateLater, usePreference } from '../benchContext';
import { DeliverCard } from '../stages/deliver/DeliverCard';
import { NibCard } from '../stages/ink/NibCard';
import { ProfileCard } from '../stages/ink/ProfileCard';
import { StrokeCard } from '../stages/ink/StrokeCard';
import { WeightsCard } from '../stages/ink/WeightsCard';
import { ArrangeCard } from '../stages/lines/ArrangeCard';
import { LinesList } from '../stages/lines/LinesList';
import { TransformCard } from '../stages/lines/TransformCard';
import { PrepareCards } from '../stages/prepare/PrepareCards';
import { CoverageCard } from '../stages/refine/CoverageCard';
import { DistanceCard } from '../stages/refine/DistanceCard';
import { LineCard } from '../stages/refine/LineCard';
import { NodeCard } from '../stages/refine/NodeCard';
import { NodeDeeds } from '../stages/refine/NodeDeeds';
import { NotesCard } from '../stages/refine/NotesCard';
import { SheetFigures } from '../stages/trace/SheetFigures';
import { ViewsRow } from './ViewsRow';

/** What the checks say, where lines are refined. */
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

/** The right side: what is chosen, what it measures, what can be set. */
export function Cards() {
  // Cards that come and go do so when there is time: a hand that lets go of a line can take hold of the next at once.
  const stage = useDeferredValue(useBenchState((s) => s.stage));
  const tool = useDeferredValue(useBenchState((s) => s.tool));
  const count = useDeferredValue(useBenchState((s) => s.lines.size));
  const place = useBenchStateLater((s) => {
    if (s.lines.size === 0) return sheetOf(s.drawing, s.sheet)?.name;
    const names = new Set([...s.lines].flatMap((id) => findLine(s.drawing, id)?.sheet.name ?? []));
    return names.size === 1 ? [...names][0] : `on ${names.size} sheets`;
  });
  const isAny = count > 0;
  const heading =
    stage === 'prepare'
      ? 'Prepare'
      : stage === 'deliver'
        ? 'Deliver'
        : count === 0
          ? 'Sheet'
          : count === 1
            ? 'Line'
            : 'Lines';
  return (
    <aside className="cards" aria-label="Figures and settings">
      <h2>
        {heading} <span>{stage === 'prepare' || stage === 'deliver' ? '' : place}</span>
      </h2>
      {stage === 'prepare' ? (
        <PrepareCards />
      ) : stage === 'deliver' ? (
        <DeliverCard />
      ) : (
        // Each card has its own place, so that one that stays is not made anew when others come and go.
        <>
          {stage === 'refine' && (!isAny || tool !== 'select') && <Checks />}
          {!isAny && stage !== 'refine' && <SheetFigures />}
          {isAny && <LineCard />}
          {isAny && <NodeCard />}
          {isAny && stage === 'ink' && tool !== 'readWidths' && (
            <>
              <ProfileCard />
              <NibCard />
              <StrokeCard />
              <WeightsCard />
            </>
          )}
          {isAny && tool === 'nodes' && <NodeDeeds />}
          {isAny && tool === 'select' && stage !== 'ink' && (
            <>
              <TransformCard />
              <ArrangeCard />
            </>
          )}
          {(isAny ? stage === 'trace' : stage !== 'refine') && <LinesList />}
        </>
      )}
    </aside>
  );
}
