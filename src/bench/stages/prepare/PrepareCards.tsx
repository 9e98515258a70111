'use client';

import { useBench, useBenchState } from '../../benchContext';
import { workedOn } from '../../tools/pictureTool';
import { CorrectionsCard } from './CorrectionsCard';
import { PageCard } from './PageCard';
import { PlacingCard } from './PlacingCard';
import { PullCard } from './PullCard';
import { PullShapesCard } from './PullShapesCard';

/** The cards of the Prepare stage: the picture in hand, then the page. */
export function PrepareCards() {
  const bench = useBench();
  const reference = useBenchState((s) => {
    const drawing = s.preview ?? s.drawing;
    const id = workedOn(bench)?.id;
    return drawing.references.find((r) => r.id === id);
  });
  const tool = useBenchState((s) => s.tool);
  return (
    <>
      {reference && tool === 'pull' && <PullCard key={reference.id} reference={reference} />}
      {reference && tool === 'pullShapes' && <PullShapesCard key={reference.id} reference={reference} />}
      {reference && <CorrectionsCard reference={reference} />}
      {reference && <PlacingCard reference={reference} />}
      <PageCard />
    </>
  );
}
