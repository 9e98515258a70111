'use client';

import { opaqueColourOf } from '@/core/scene/ink';
import { styleLines } from '@/core/edits/lines';
import { scaleWidths } from '@/core/edits/strokes';
import { counted } from '@/core/change/edit';
import { ColourField } from '@/ui/ColourField';
import { LengthField } from '@/ui/LengthField';
import { Scrub } from '@/ui/Scrub';
import { useBench, useBenchState } from '../../benchContext';
import { setWidth } from '../../commands/strokes';
import { seenChosen, sharedStyle } from '../../state/chosen';

/** So many px of the hand make a width twice as great. */
const DOUBLES = 160;

/** Width and colour of all chosen lines at once. */
export function StyleOptions() {
  const bench = useBench();
  const count = useBenchState((s) => s.lines.size);
  const width = useBenchState((s) => sharedStyle(seenChosen(s), (x) => x.width) ?? null);
  const colour = useBenchState((s) => sharedStyle(s, (x, line) => opaqueColourOf(s.drawing, x.stroke, line)) ?? null);
  const reading = useBenchState((s) => s.reading);
  if (count === 0) return <span className="option-label">Choose lines to set their width and colour.</span>;
  const scrub = (px: number, done: boolean): void => {
    const { drawing, lines } = bench.getState();
    const edit = scaleWidths(drawing, [...lines], 2 ** (px / DOUBLES), counted('Set width of', lines.size, 'line'));
    if (done && px !== 0) bench.commit(edit);
    else bench.show(done ? null : edit);
  };
  return (
    <>
      <Scrub
        title="Drag to and fro: wider or thinner"
        disabled={reading}
        onScrub={scrub}
        onCancel={() => bench.show(null)}
      >
        Width
      </Scrub>
      <LengthField
        label="Stroke width"
        value={width}
        unit="pt"
        min={0}
        max={2000}
        disabled={reading}
        onCommit={(w) => setWidth(bench, w)}
      />
      <span className="option-label">Colour</span>
      <ColourField
        label="Stroke colour"
        value={colour}
        disabled={reading}
        onCommit={(c) => {
          const { drawing, lines } = bench.getState();
          bench.commit(styleLines(drawing, lines, { stroke: c }, counted('Set colour of', lines.size, 'line')));
        }}
      />
    </>
  );
}
