'use client';

import type { Reference } from '@/core';
import { setReference } from '@/core/edits/references';
import { Choice } from '@/ui/Chip';
import { useBench, useBenchState } from '../../benchContext';

/** What lines go by on a picture, in all that they do there: its ink, or its edges. */
export function TargetChoice({ reference: r, label }: { reference: Reference; label: string }) {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  return (
    <Choice
      label={label}
      value={r.target}
      options={[
        { value: 'ink', label: 'ink', title: 'The strokes of a sketch' },
        { value: 'edge', label: 'edges', title: 'Where the tone changes in a photo' },
      ]}
      onChange={(target) => {
        if (!reading) bench.commit(setReference(bench.getState().drawing, r.id, { target }, 'Measure from'));
      }}
    />
  );
}
