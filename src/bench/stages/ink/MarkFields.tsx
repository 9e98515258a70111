'use client';

import type { Line } from '@/core';
import { setMarks } from '@/core/edits/strokes';
import { findLine } from '@/core/drawing/find';
import type { Mark } from '@/core/drawing/schema';
import { Chip } from '@/ui/Chip';
import { LengthField } from '@/ui/LengthField';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState } from '../../benchContext';

/** The figures of the mark in hand. */
export function MarkFields({ line }: { line: Line }) {
  const bench = useBench();
  const index = useBenchState((s) => s.mark);
  const reading = useBenchState((s) => s.reading);
  const mark = index === null ? undefined : line.marks?.[index];
  if (!mark || index === null) return <p className="empty">Press on the stroke to set a mark; drag it up and down.</p>;
  const set = (next: Mark | null, label: string): void => {
    const { drawing } = bench.getState();
    const own = findLine(drawing, line.id)?.line.marks ?? [];
    const marks = own.flatMap((m, i) => (i === index ? (next ?? []) : m));
    bench.commit(setMarks(drawing, new Map([[line.id, [...marks].sort((a, b) => a.at - b.at)]]), label));
  };
  const side = (which: 'left' | 'right') => (
    <>
      <span className="option-label">{which}</span>
      <LengthField
        label={`Width to the ${which}`}
        value={mark[which]}
        unit="pt"
        min={0}
        max={10_000}
        disabled={reading}
        onCommit={(v) => set({ ...mark, [which]: v }, 'Swell line')}
      />
    </>
  );
  return (
    <div className="mark-fields">
      <div className="fields">
        {side('left')}
        {side('right')}
        <span className="option-label">at</span>
        <NumberField
          label="Place along the line"
          value={mark.at * 100}
          min={0}
          max={100}
          digits={1}
          unit="%"
          disabled={reading}
          onCommit={(v) => set({ ...mark, at: v / 100 }, 'Move mark')}
        />
      </div>
      <span className="choice">
        <Chip
          on={mark.sharp === true}
          disabled={reading}
          title="The width turns sharply here"
          onToggle={(on) => set({ ...mark, sharp: on }, 'Turn mark')}
        >
          sharp
        </Chip>
        <Chip on={false} disabled={reading} title="Take this mark away" onToggle={() => set(null, 'Remove mark')}>
          remove
        </Chip>
      </span>
    </div>
  );
}
