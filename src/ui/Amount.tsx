'use client';

import { Slider } from 'antd';
import { useState } from 'react';
import { formatNumber } from './format';

type Props = {
  label: string;
  /** Null where the chosen differ. */
  value: number | null;
  min: number;
  max: number;
  step?: number;
  /** How the figure is written; as a number with two decimals at most by default. */
  written?: (value: number) => string;
  disabled?: boolean;
  /** While the hand moves, and when it lets go. */
  onChange: (value: number, done: boolean) => void;
};

const plainly = (value: number): string => formatNumber(value, 2);

/** A figure set by sliding, written beside it; it follows the hand, also where what it sets comes later. */
export function Amount({ label, value, min, max, step = 1, written = plainly, disabled, onChange }: Props) {
  const [held, setHeld] = useState<number | null>(null);
  const shown = held ?? value;
  return (
    <label className="amount">
      <span className="option-label">{label}</span>
      <Slider
        min={min}
        max={max}
        step={step}
        value={shown ?? min}
        disabled={disabled}
        tooltip={{ open: false }}
        ariaLabelForHandle={label}
        onChange={(v) => {
          setHeld(v);
          onChange(v, false);
        }}
        onChangeComplete={(v) => {
          setHeld(null);
          onChange(v, true);
        }}
      />
      <b>{shown === null ? 'mixed' : written(shown)}</b>
    </label>
  );
}
