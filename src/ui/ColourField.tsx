'use client';

import { ColourPicker } from './ColourPicker';

/** Line colours to begin with: darks that print well, instead of black alone. */
const darks = ['#27241d', '#4a2f25', '#5c2344', '#20304f', '#1f4a45', '#33451f', '#6b3a12', '#707070'];

type Props = { label: string; value: string | null; disabled?: boolean; onCommit: (colour: string) => void };

/** A colour, chosen from a few darks or mixed freely. `value` null shows that the chosen differ. */
export function ColourField({ label, value, disabled, onCommit }: Props) {
  return (
    <ColourPicker
      label={label}
      value={value ?? '#ffffff'}
      disabled={disabled}
      presets={{ label: 'Darks', colors: darks }}
      onCommit={onCommit}
    >
      <button
        type="button"
        className="colour-field"
        aria-label={`${label}: ${value ?? 'mixed'}`}
        title={label}
        disabled={disabled}
      >
        <i style={value ? { background: value } : undefined} className={value ? '' : 'mixed'} />
        {value ?? 'mixed'}
      </button>
    </ColourPicker>
  );
}
