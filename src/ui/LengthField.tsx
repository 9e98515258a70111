'use client';

import { Input } from 'antd';
import { useState } from 'react';
import type { Unit } from '@/core';
import { toUnit } from '@/core/drawing/unit';
import { formatNumber } from './format';
import { parseLength } from './measure';

type Props = {
  label: string;
  /** In page units; null where the chosen differ. */
  value: number | null;
  unit: Unit;
  min?: number;
  max?: number;
  disabled?: boolean;
  onCommit: (px: number) => void;
};

/** A field for a length. It takes units and arithmetic; Enter or leaving it sets the value, Escape gives it up, arrows step. */
export function LengthField({ label, value, unit, min = -1e6, max = 1e6, disabled, onCommit }: Props) {
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const shown = text ?? (value === null ? '' : formatNumber(toUnit(value, unit), 3).replace(/,/g, ''));

  const commit = (): void => {
    if (text === null) return;
    const px = parseLength(text.replace(new RegExp(`\\s*${unit}$`), ` ${unit}`), unit);
    const ok = px !== null && px >= min && px <= max;
    setWrong(!ok);
    if (!ok) return;
    setText(null);
    if (value === null || Math.abs(px - value) > 1e-9) onCommit(px);
  };

  const step = (by: number): void => {
    const base = (text !== null && parseLength(text, unit)) || value || 0;
    const px = Math.min(
      max,
      Math.max(min, base + by * (unit === 'px' ? 1 : unit === 'pt' ? 4 / 3 / 4 : 96 / 25.4 / 10)),
    );
    setText(null);
    setWrong(false);
    onCommit(px);
  };

  return (
    <Input
      className="length-field"
      aria-label={label}
      aria-invalid={wrong}
      size="small"
      disabled={disabled}
      status={wrong ? 'error' : undefined}
      value={shown}
      placeholder={value === null ? 'mixed' : undefined}
      title={wrong ? 'A length, such as 3 mm or 2pt + 0.5' : undefined}
      suffix={<span className="unit">{unit}</span>}
      onChange={(e) => setText(e.target.value)}
      onFocus={(e) => e.target.select()}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === 'Enter') commit();
        else if (e.key === 'Escape') {
          setText(null);
          setWrong(false);
          e.currentTarget.blur();
        } else if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
          e.preventDefault();
          step((e.key === 'ArrowUp' ? 1 : -1) * (e.shiftKey ? 10 : 1));
        }
        e.stopPropagation();
      }}
    />
  );
}
