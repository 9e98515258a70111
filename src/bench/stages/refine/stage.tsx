import { formatCount } from '@/ui/format';
import { usePreference } from '../../benchContext';
import { ViewsRow } from '../../panels/ViewsRow';
import type { Stage } from '../stage';
import { tallyOfDrawing } from '../shared/tally';
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

function RefineCards() {
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

/** Lines are brought to the ink, nodes put right. */
export const refine: Stage<'refine'> = {
  id: 'refine',
  label: 'Refine',
  key: '3',
  first: 'nodes',
  cards: RefineCards,
  progress(d) {
    const { nodes } = tallyOfDrawing(d);
    return nodes === 0 ? '–' : formatCount(nodes, 'node');
  },
};
