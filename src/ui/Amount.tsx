'use client';

import { Slider } from 'antd';

type Props = {
  label: string;
  /** Null where the chosen differ. */
  value: number | null;
  min: number;
  max: number;
  step: number;
  written: (value: number) => string;
  disabled?: boolean;
  /** While the hand moves, and when it lets go. */
  onChange: (value: number, done: boolean) => void;
};

/** A figure set by sliding, written beside it. */
export const Amount = ({ label, value, min, max, step, written, disabled, onChange }: Props) => (
  <label className="amount">
    <span className="option-label">{label}</span>
    <Slider
      min={min}
      max={max}
      step={step}
      value={value ?? min}
      disabled={disabled}
      tooltip={{ open: false }}
      ariaLabelForHandle={label}
      onChange={(v) => onChange(v, false)}
      onChangeComplete={(v) => onChange(v, true)}
    />
    <b>{value === null ? 'mixed' : written(value)}</b>
  </label>
);
