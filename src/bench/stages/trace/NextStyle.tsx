'use client';

import type { Drawing } from '@/core';
import { opaqueColourOf } from '@/core/scene/ink';
import { styleSheet } from '@/core/edits/lines';
import { sheetOf } from '@/core/drawing/find';
import { ColourField } from '@/ui/ColourField';
import { LengthField } from '@/ui/LengthField';
import { useBench, useBenchState } from '../../benchContext';

/** The colour that stands for what the next line of a sheet is drawn with. */
const nextColour = (d: Drawing, sheet: string): string | null => {
  const style = sheetOf(d, sheet)?.style;
  return style ? opaqueColourOf(d, style.stroke) : null;
};

/** What the next line on this sheet looks like. */
export function NextStyle() {
  const bench = useBench();
  // Apart, so that a line more on the sheet draws nothing here anew.
  const id = useBenchState((s) => s.sheet);
  const name = useBenchState((s) => sheetOf(s.drawing, s.sheet)?.name);
  const next = useBenchState((s) => sheetOf(s.drawing, s.sheet)?.style);
  const colour = useBenchState((s) => nextColour(s.drawing, s.sheet));
  const reading = useBenchState((s) => s.reading);
  if (!next) return null;
  const set = (style: Parameters<typeof styleSheet>[2], label: string): void =>
    void bench.commit(styleSheet(bench.getState().drawing, id, style, label));
  return (
    <>
      <span className="option-label next-on">
        Next on <b>{name}</b>
      </span>
      <LengthField
        label="Width of the next line"
        value={next.width}
        unit="pt"
        min={0}
        max={2000}
        disabled={reading}
        onCommit={(width) => set({ width }, 'Set next width')}
      />
      <ColourField
        label="Colour of the next line"
        value={colour}
        disabled={reading}
        onCommit={(stroke) => set({ stroke }, 'Set next colour')}
      />
    </>
  );
}
