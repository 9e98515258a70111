'use client';

import { styleLines } from '@/core/change/lineEdits';
import { counted } from '@/core/change/edit';
import { findLine } from '@/core/drawing/find';
import type { Style } from '@/core';
import { ColourField } from '@/ui/ColourField';
import { LengthField } from '@/ui/LengthField';
import { useBench, useBenchState } from '../../benchContext';
import type { BenchState } from '../../state/store';

/** The value that all chosen lines share; null where they differ. */
function shared<K extends keyof Style>(s: BenchState, key: K): Style[K] | null {
  let value: Style[K] | null = null;
  for (const id of s.lines) {
    const own = findLine(s.drawing, id)?.line.style[key];
    if (own === undefined) continue;
    if (value !== null && own !== value) return null;
    value = own;
  }
  return value;
}

/** Width and colour of all chosen lines at once. */
export function StyleOptions() {
  const bench = useBench();
  const count = useBenchState((s) => s.lines.size);
  const width = useBenchState((s) => shared(s, 'width'));
  const colour = useBenchState((s) => shared(s, 'colour'));
  const reading = useBenchState((s) => s.reading);
  if (count === 0) return <span className="option-label">Choose lines to set their width and colour.</span>;
  const set = (style: Partial<Style>, what: string): void => {
    const { drawing, lines } = bench.getState();
    bench.commit(styleLines(drawing, lines, style, counted(`Set ${what} of`, lines.size, 'line')));
  };
  return (
    <>
      <span className="option-label">Width</span>
      <LengthField
        label="Stroke width"
        value={width}
        unit="pt"
        min={0}
        max={2000}
        disabled={reading}
        onCommit={(w) => set({ width: w }, 'width')}
      />
      <span className="option-label">Colour</span>
      <ColourField
        label="Stroke colour"
        value={colour}
        disabled={reading}
        onCommit={(c) => set({ colour: c }, 'colour')}
      />
    </>
  );
}
