import { isPart } from '@/core/drawing/items';
import { formatCount } from '@/ui/format';
import { useIsChosen } from '../shared/useIsChosen';
import { LinesList } from '../shared/LinesList';
import { LineCard } from '../shared/LineCard';
import { NodeCard } from '../shared/NodeCard';
import type { Stage } from '../stage';
import { tallyOfDrawing } from '../shared/tally';
import { ToolCards } from '../shared/ToolCards';
import { SheetFigures } from '../shared/SheetFigures';

function TraceCards() {
  const isAny = useIsChosen();
  // Each card has its own place, so that one that stays is not made anew when others come and go.
  return (
    <>
      {!isAny && <SheetFigures />}
      {isAny && <LineCard />}
      {isAny && <NodeCard />}
      {isAny && <ToolCards />}
      <LinesList />
    </>
  );
}

/** Lines are drawn over the reference. */
export const trace: Stage<'trace'> = {
  id: 'trace',
  label: 'Trace',
  key: '2',
  first: 'pen',
  cards: TraceCards,
  /** Parts by their state where someone has set one; else how many lines there are. */
  progress(d) {
    const { folders } = d;
    const sheets = d.sheets.filter(isPart);
    const isPlanned = folders.length > 0 || sheets.some((s) => s.state !== 'to do');
    if (isPlanned)
      return `${sheets.filter((s) => s.state === 'traced').length} of ${formatCount(sheets.length, 'part')}`;
    const { lines } = tallyOfDrawing(d);
    return lines === 0 ? 'not begun' : formatCount(lines, 'line');
  },
};
