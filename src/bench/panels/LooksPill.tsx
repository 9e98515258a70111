'use client';

import { Chip } from '@/ui/Chip';
import { sheetOf } from '@/core/drawing/find';
import { toggleSolo } from '../commands/desk';
import { useBench, useBenchState, usePreference } from '../benchContext';
import { prefer } from '../state/preferences';

const TIMES = [2, 3, 4, 6, 8];

/** How the lines are seen. None of it is in the drawing. */
export function LooksPill() {
  const bench = useBench();
  const draft = usePreference('draft');
  const seeThrough = usePreference('seeThrough');
  const bare = usePreference('bare');
  const loupe = usePreference('loupe');
  const times = usePreference('loupeTimes');
  const solo = useBenchState((s) => s.solo !== null);
  const only = useBenchState((s) => sheetOf(s.drawing, s.solo ?? s.sheet)?.name);
  return (
    <div className="pill looks" role="group" aria-label="How lines are seen">
      <Chip on={draft} title="Lines in the tag colours of their sheets" onToggle={(on) => prefer({ draft: on })}>
        draft colours
      </Chip>
      <Chip on={seeThrough} title="Fills let through what lies beneath" onToggle={(on) => prefer({ seeThrough: on })}>
        see-through
      </Chip>
      <Chip on={bare} title="Every line as a hair line, without fill" onToggle={(on) => prefer({ bare: on })}>
        bare lines
      </Chip>
      <Chip on={loupe} title="The loupe at the pointer" onToggle={(on) => prefer({ loupe: on })}>
        loupe
      </Chip>
      {loupe && (
        <button
          type="button"
          className="chip"
          aria-label={`The loupe shows ${times} times as large; change it`}
          title="A click: the next size"
          onClick={() => prefer({ loupeTimes: TIMES[(TIMES.indexOf(times) + 1) % TIMES.length] })}
        >
          {times}×
        </button>
      )}
      {only !== undefined && (
        <Chip
          on={solo}
          title={solo ? 'See all sheets again' : 'See the sheet in hand alone (Shift S)'}
          onToggle={() => toggleSolo(bench, bench.getState().solo ?? bench.getState().sheet)}
        >
          only {only}
        </Chip>
      )}
    </div>
  );
}
