'use client';

import type { Blend } from '@/core';
import { blends } from '@/core/drawing/paint';
import { FEWEST_STEPS, MOST_STEPS } from '@/core/colour/tone';
import { Choice } from '@/ui/Chip';
import { NumberField } from '@/ui/NumberField';
import { PickField } from '@/ui/PickField';
import { usePreference } from '../../benchContext';
import { preferIn } from '../../state/preferences';

const sides = [
  { value: 'shade', label: 'shade' },
  { value: 'light', label: 'light' },
] as const;

/** Shade or light, by how many steps of tone, and how it is laid over what is below. */
export function ShadeOptions() {
  const { light, steps, by, blend, opacity } = usePreference('shade');
  return (
    <>
      <Choice
        label="Shade or light"
        options={sides}
        value={light ? 'light' : 'shade'}
        onChange={(v) => preferIn('shade', { light: v === 'light' })}
      />
      <span className="option-label">by</span>
      <NumberField
        label="Steps darker or lighter"
        value={by}
        min={1}
        max={MOST_STEPS}
        onCommit={(v) => preferIn('shade', { by: v })}
      />
      <span className="option-label">of</span>
      <NumberField
        label="Value steps in all"
        value={steps}
        min={FEWEST_STEPS}
        max={MOST_STEPS}
        onCommit={(v) => preferIn('shade', { steps: v })}
      />
      <span className="option-label">steps of tone, laid</span>
      <PickField<Blend>
        aria-label="Laid over what is below"
        value={blend}
        options={blends.map((value) => ({ value, label: value === 'normal' ? 'plainly' : value }))}
        onChange={(v) => preferIn('shade', { blend: v })}
        popupMatchSelectWidth={false}
      />
      <NumberField
        label="How much it covers"
        value={Math.round(opacity * 100)}
        unit="%"
        min={1}
        max={100}
        onCommit={(v) => preferIn('shade', { opacity: v / 100 })}
      />
    </>
  );
}
