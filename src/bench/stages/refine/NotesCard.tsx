'use client';

import { fixWords } from '@/core/edits/fix/ways';
import { noteKinds } from '@/core/check/note';
import { unwave } from '@/core/edits/notes';
import { formatCount, formatLength, formatNumber } from '@/ui/format';
import { useBench, useBenchState } from '../../benchContext';
import { useDeedButton } from '../../useDeedButton';
import * as act from '../../commands/checks';
import { noteWords } from '../../state/noteWords';
import { useChecked } from '../../useChecked';

/** What the checks found, kind by kind; the one that is visited, with what can be done about it. */
export function NotesCard() {
  const bench = useBench();
  const button = useDeedButton();
  const open = useChecked((c) => c.open);
  const here = useChecked((c) => c.open.find((n) => n.key === c.note));
  const sought = useChecked((c) => c.sought);
  const waved = useBenchState((s) => s.drawing.waved.length);
  const unit = useBenchState((s) => s.drawing.page.unit);
  const kinds = noteKinds.flatMap((kind) => {
    const count = open.filter((n) => n.kind === kind).length;
    return count > 0 ? [{ kind, count }] : [];
  });
  return (
    <div className="card notes" role="group" aria-label="Notes">
      <div className="row">
        <b>
          {open.length === 0
            ? sought
              ? 'No notes'
              : 'Looking for what may be wrong…'
            : formatCount(open.length, 'note')}
        </b>
        {open.length > 0 && (
          <span className="buttons">
            {button('‹', 'The note before', () => act.visitNext(bench, -1), { 'aria-label': 'The note before' })}
            {button('›', 'The next note', () => act.visitNext(bench, 1), { 'aria-label': 'The next note' })}
          </span>
        )}
      </div>
      {here && (
        <div className="note-here" role="group" aria-label="The note visited">
          <b>{noteWords[here.kind].one}</b>
          {here.figure !== null && (
            <span>{here.kind === 'kink' ? `${formatNumber(here.figure, 1)}°` : formatLength(here.figure, unit)}</span>
          )}
          <p>{noteWords[here.kind].meaning}.</p>
          <div className="buttons">
            {button(fixWords[here.kind], 'Put it right', () => act.fix(bench, here), {
              onPointerEnter: () => act.showFix(bench, here),
              onPointerLeave: () => act.showFix(bench, null),
              onFocus: () => act.showFix(bench, here),
              onBlur: () => act.showFix(bench, null),
            })}
            {button('it is meant so', 'It is not shown again, unless it is asked for below', () =>
              act.wave(bench, [here]),
            )}
          </div>
        </div>
      )}
      {kinds.map(({ kind, count }) => (
        <div className="note-kind" key={kind}>
          <button type="button" title={noteWords[kind].meaning} onClick={() => act.visitNext(bench, 1, kind)}>
            <b>{count}</b> {count === 1 ? noteWords[kind].one : noteWords[kind].many}
          </button>
          {button('fix all', `${fixWords[kind]}, all of them`, () => act.fixKind(bench, kind), {
            'aria-label': `Fix all ${noteWords[kind].many}`,
          })}
        </div>
      ))}
      {waved > 0 && (
        <div className="row">
          <span>{waved} waved through</span>
          {button('show again', 'Notes that were waved through are shown again', () =>
            bench.commit(unwave(bench.getState().drawing)),
          )}
        </div>
      )}
    </div>
  );
}
