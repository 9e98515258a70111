'use client';

import { FigureField } from './FigureField';
import { formatNumber } from './format';
import { parseNumber } from './measure';

type Props = {
  label: string;
  /** Null where the chosen differ, or where none is set: then `unset` says what that means. */
  value: number | null;
  min: number;
  max: number;
  /** Decimals that count; none by default. */
  digits?: number;
  unit?: string;
  unset?: string;
  disabled?: boolean;
  onCommit: (value: number) => void;
};

/** A field for a number. It takes arithmetic. */
export function NumberField({ label, value, min, max, digits = 0, unit, unset, disabled, onCommit }: Props) {
  const rounded = (n: number): number => Math.round(n * 10 ** digits) / 10 ** digits;
  const read = (text: string): number | null => {
    const n = parseNumber(text);
    return n !== null && n >= min && n <= max ? rounded(n) : null;
  };
  return (
    <FigureField
      label={label}
      shown={value === null ? null : formatNumber(value, digits).replace(/,/g, '')}
      unit={unit}
      unset={unset}
      help={`A number from ${formatNumber(min, digits)} to ${formatNumber(max, digits)}`}
      disabled={disabled}
      read={read}
      stepped={(text, steps) =>
        Math.min(max, Math.max(min, rounded(((text !== null && read(text)) || value || min) + steps / 10 ** digits)))
      }
      onCommit={(n) => n !== value && onCommit(n)}
    />
  );
}
