'use client';

import type { ReactNode } from 'react';

type Props = { on: boolean; title?: string; disabled?: boolean; onToggle: (on: boolean) => void; children: ReactNode };

/** A switch as a small slip: pressed in, it is yellow. */
export const Chip = ({ on, title, disabled, onToggle, children }: Props) => (
  <button
    type="button"
    className={on ? 'chip on' : 'chip'}
    aria-pressed={on}
    title={title}
    disabled={disabled}
    onClick={(e) => {
      // One that was clicked lets go of the keys: Space and Enter are the hand's again.
      if (e.detail > 0) e.currentTarget.blur();
      onToggle(!on);
    }}
  >
    {children}
  </button>
);

type ChoiceProps<T extends string> = {
  label: string;
  options: readonly { value: T; label: string; title?: string }[];
  /** Null where the chosen differ: none is on. */
  value: T | null;
  disabled?: boolean;
  onChange: (value: T) => void;
};

/** One of a few, as slips side by side. */
export const Choice = <T extends string>({ label, options, value, disabled, onChange }: ChoiceProps<T>) => (
  <span className="choice" role="group" aria-label={label}>
    {options.map((o) => (
      <Chip key={o.value} on={o.value === value} title={o.title} disabled={disabled} onToggle={() => onChange(o.value)}>
        {o.label}
      </Chip>
    ))}
    {value === null && <em className="mixed">mixed</em>}
  </span>
);
