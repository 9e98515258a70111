'use client';

import { InputNumber } from 'antd';

type Props = {
  label: string;
  value: number;
  min: number;
  max: number;
  disabled?: boolean;
  onCommit: (value: number) => void;
};

/** A whole number, set by Enter, by leaving the field, or by stepping. */
export function NumberField({ label, value, min, max, disabled, onCommit }: Props) {
  return (
    <InputNumber
      size="small"
      aria-label={label}
      value={value}
      min={min}
      max={max}
      precision={0}
      disabled={disabled}
      changeOnBlur={false}
      onBlur={(e) => keep(e.target.value)}
      onPressEnter={(e) => keep(e.currentTarget.value)}
      onStep={(v) => onCommit(Number(v))}
      onKeyDown={(e) => e.stopPropagation()}
    />
  );

  function keep(text: string): void {
    const n = Math.round(Number(text));
    if (text.trim() !== '' && Number.isFinite(n) && n >= min && n <= max && n !== value) onCommit(n);
  }
}
