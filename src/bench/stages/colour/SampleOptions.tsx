'use client';

import { ColourField } from '@/ui/ColourField';
import { usePreference } from '../../benchContext';
import { preferIn } from '../../state/preferences';

/** The colour in hand, and those that were taken last. */
export function SampleOptions() {
  const { colour } = usePreference('pour');
  const samples = usePreference('samples');
  return (
    <>
      <span className="option-label">Colour</span>
      <ColourField label="Colour to pour" value={colour} onCommit={(c) => preferIn('pour', { colour: c })} />
      {samples.length > 0 && <span className="option-label">taken last</span>}
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
