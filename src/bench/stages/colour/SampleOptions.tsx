'use client';

import { Chip, Choice } from '@/ui/Chip';
import { ColourField } from '@/ui/ColourField';
import { PickField } from '@/ui/PickField';
import { useBenchState, usePreference } from '../../benchContext';
import { preferIn, type SampleTo } from '../../state/preferences';

const kinds = [
  { value: 'place', label: 'place', title: 'The colour at the pointer, or the mean of a dragged box' },
  { value: 'mean', label: 'area’s mean', title: 'The mean of the pressed area' },
  { value: 'area', label: 'most of area', title: 'The colour that most of the pressed area has' },
] as const;

const aims: { value: SampleTo; label: string }[] = [
  { value: 'hand', label: 'to be poured' },
  { value: 'fills', label: 'for chosen fills' },
  { value: 'strokes', label: 'for chosen strokes' },
  { value: 'swatch', label: 'as a swatch' },
];

/** What is sampled, of what, and what for; the colour in hand, and those that were taken last. */
export function SampleOptions() {
  const { colour } = usePreference('pour');
  const { of, corrected, to } = usePreference('sample');
  const samples = usePreference('samples');
  const isCorrected = useBenchState((s) => s.drawing.references.some((r) => r.visible && r.corrections.length > 0));
  return (
    <>
      <Choice label="What is sampled" options={kinds} value={of} onChange={(v) => preferIn('sample', { of: v })} />
      {isCorrected && (
        <Chip
          on={corrected}
          title="The picture as it is corrected, or as it came"
          onToggle={(on) => preferIn('sample', { corrected: on })}
        >
          corrected
        </Chip>
      )}
      <PickField<SampleTo>
        aria-label="What the colour is for"
        value={to}
        options={aims}
        popupMatchSelectWidth={false}
        onChange={(v) => preferIn('sample', { to: v })}
      />
      <ColourField label="Colour to pour" value={colour} onCommit={(c) => preferIn('pour', { colour: c })} />
      {samples.map((c) => (
        <button
          key={c}
          type="button"
          className="sample"
          aria-label={`Take ${c} in hand`}
          title={c}
          style={{ background: c }}
          onClick={() => preferIn('pour', { colour: c })}
        />
      ))}
    </>
  );
}
