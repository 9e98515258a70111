'use client';

import { RightOutlined } from '@ant-design/icons';
import { useMemo } from 'react';
import { noteKinds } from '@/core/check/note';
import { readinessOf } from '@/core/deliver/readiness';
import { formatShare } from '@/ui/format';
import { later } from '@/ui/later';
import { useBench, useBenchState } from '../../benchContext';
import * as go from '../../commands/ready';
import { noteWords } from '../../state/noteWords';
import { useChecked } from '../../useChecked';
import { useHistory } from '../../useHistory';

/** The chart comes when it is first looked at. */
const ProgressPlot = later(() => import('./ProgressPlot').then((m) => m.ProgressPlot), 120);

/** What is left to do before it is handed over; each leads to its place. And how it came this far. */
export function ReadyCard() {
  const bench = useBench();
  const drawing = useBenchState((s) => s.drawing);
  const ready = useMemo(() => readinessOf(drawing), [drawing]);
  const { parts } = ready;
  const isMeasured = drawing.references.some((r) => r.visible && !r.beside);
  const isEmpty = drawing.sheets.every((s) => s.items.length === 0);
  return (
    <div className="card ready" role="group" aria-label="Ready?">
      <div className="row">
        <b>Ready?</b>
      </div>
      {isEmpty && <p className="empty">There is nothing on the page yet.</p>}
      {!isEmpty && (
        <>
          <Part what="parts to do" ids={parts['to do']} />
          <Part what="parts at work" ids={parts.working} />
          <Part what="parts traced" ids={parts.traced} isGood />
        </>
      )}
      {isMeasured && <Coverage />}
      {isMeasured && <Invented />}
      <Notes />
      <Line
        count={ready.open.length}
        one="flat that is open"
        many="flats that are open"
        none="no open flats"
        onGo={() => go.showItems(bench, ready.open)}
      />
      <Part what="empty sheets" one="empty sheet" ids={ready.empty} none="no empty sheets" />
      <Part
        what="hidden sheets, in no file"
        one="hidden sheet, in no file"
        ids={ready.hidden}
        none="no hidden sheets"
      />
      {ready.strays.map(({ colour, items }) => (
        <Line
          key={colour}
          count={items.length}
          one={`in ${colour}, not of the palette`}
          many={`in ${colour}, not of the palette`}
          swatch={colour}
          onGo={() => go.showItems(bench, items)}
        />
      ))}
      {!!drawing.palette?.length && ready.strays.length === 0 && (
        <Line count={0} none="all colours are of the palette" />
      )}
      <Progress />
    </div>
  );
}

type LineProps = {
  count: number;
  one?: string;
  many?: string;
  /** What is said of none; nothing is, where it is left out. */
  none?: string;
  isGood?: boolean;
  swatch?: string;
  onGo?: () => void;
};

/** Something that is left to do, and how often; a press goes to it. */
function Line({ count, one = '', many = one, none, isGood = count === 0, swatch, onGo }: LineProps) {
  if (count === 0 && !none) return null;
  return (
    <button type="button" className="ready-line" disabled={count === 0 || !onGo} data-good={isGood} onClick={onGo}>
      <i aria-hidden="true" style={swatch ? { background: swatch } : undefined} />
      <span>
        {count === 0 ? (
          none
        ) : (
          <>
            <b>{count}</b> {count === 1 ? one : many}
          </>
        )}
      </span>
      {count > 0 && onGo && <RightOutlined />}
    </button>
  );
}

/** Sheets: a press takes the next of them in hand. */
function Part({
  what,
  one = what.replace('parts', 'part'),
  ids,
  none,
  isGood,
}: {
  what: string;
  one?: string;
  ids: readonly string[];
  none?: string;
  isGood?: boolean;
}) {
  const bench = useBench();
  const next = (): void => {
    const at = ids.indexOf(bench.getState().sheet);
    go.showSheet(bench, ids[(at + 1) % ids.length]);
  };
  return <Line count={ids.length} one={one} many={what} none={none} {...(isGood && { isGood })} onGo={next} />;
}

function Coverage() {
  const bench = useBench();
  const covers = useChecked((c) => c.covers);
  const uncovered = useChecked((c) => c.uncovered);
  const state = useChecked((c) => c.state);
  const references = useBenchState((s) => s.drawing.references);
  const nounOf = (id: string): string =>
    references.find((r) => r.id === id)?.target === 'edge' ? 'the outlines have a line' : 'the ink has a line';
  if (covers.length === 0)
    return (
      <p className="quiet">
        {state === 'ready' ? 'No ink to be covered was found.' : 'Measuring against the picture…'}
      </p>
    );
  const patches = uncovered.flatMap((c) => c.patches);
  return covers.map((c) => (
    <button
      key={c.reference}
      type="button"
      className="ready-line"
      data-good={patches.length === 0}
      onClick={() => go.showUncovered(bench, patches[0]?.box ?? null)}
    >
      <i aria-hidden="true" />
      <span>
        <b>{formatShare(c.covered, 1)}</b> of {nounOf(c.reference)}
      </span>
      <RightOutlined />
    </button>
  ));
}

/** Lines that have no ink beneath. */
function Invented() {
  const bench = useBench();
  const distances = useChecked((c) => c.distances);
  const isKnown = useChecked((c) => c.sums !== null);
  if (!isKnown) return null;
  const ids = [...distances.values()].flatMap((d) => (d.inked === 0 ? [d.id] : []));
  return (
    <Line
      count={ids.length}
      one="line without ink beneath"
      many="lines without ink beneath"
      none="no line is invented"
      onGo={() => go.showItems(bench, ids)}
    />
  );
}

function Notes() {
  const bench = useBench();
  const open = useChecked((c) => c.open);
  const sought = useChecked((c) => c.sought);
  if (!sought) return <p className="quiet">Looking for what may be wrong…</p>;
  if (open.length === 0) return <Line count={0} none="no notes" />;
  return noteKinds.map((kind) => (
    <Line
      key={kind}
      count={open.filter((n) => n.kind === kind).length}
      one={noteWords[kind].one}
      many={noteWords[kind].many}
      onGo={() => go.showNotes(bench, kind)}
    />
  ));
}

function Progress() {
  const history = useHistory();
  if (!history || history.points.length < 2) return null;
  return <ProgressPlot points={history.points} />;
}
