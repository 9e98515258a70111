'use client';

import { lineLength } from '@/core/drawing/run';
import { formatLength, formatNumber } from '@/ui/format';
import { Written } from '@/ui/following';
import { useBenchState, useBenchStateLater, useFollowingBench } from '../../benchContext';
import { chosenOf, chosenTally, seenChosen } from '../../state/chosen';
import { StyleOptions } from '../ink/StyleOptions';

/** What is chosen: how much of it there is, and its stroke. */
export function LineCard() {
  const isAny = useBenchState((s) => chosenOf(s).length > 0);
  // In the Ink stage the tray has the stroke at hand.
  const stage = useBenchState((s) => s.stage);
  if (!isAny) return null;
  return (
    <div className="card" aria-label="What is chosen" role="group">
      <LineFigures />
      {stage !== 'ink' && (
        <div className="fields">
          <StyleOptions />
        </div>
      )}
    </div>
  );
}

/** Beyond this the sum of their lengths would be felt while dragging, and says little. */
const MOST_MEASURED = 300;

/** How much is chosen. The length follows a moving hand. */
function LineFigures() {
  const { count, nodes, closed } = useBenchStateLater((s) => chosenTally(seenChosen(s)));
  const length = useFollowingBench((s) => {
    const chosen = chosenOf(seenChosen(s));
    const px = chosen.length > MOST_MEASURED ? 0 : chosen.reduce((sum, { line }) => sum + lineLength(line), 0);
    return formatLength(px, s.drawing.page.unit);
  });
  return (
    <>
      {count > 1 && <Row what="Lines" figure={formatNumber(count)} />}
      <Row what="Nodes" figure={formatNumber(nodes)} />
      {count <= MOST_MEASURED && (
        <div className="row">
          <span>Length</span>
          <Written text={length} />
        </div>
      )}
      <Row what="Closed" figure={count === 1 ? (closed ? 'yes' : 'no') : `${closed} of ${count}`} />
    </>
  );
}

export const Row = ({ what, figure }: { what: string; figure: string }) => (
  <div className="row">
    <span>{what}</span>
    <b>{figure}</b>
  </div>
);
