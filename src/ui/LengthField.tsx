'use client';

import type { Unit } from '@/core';
import { toUnit } from '@/core/drawing/unit';
import { FigureField } from './FigureField';
import type { Following } from './following';
import { formatNumber } from './format';
import { parseLength } from './measure';

type Props = {
  label: string;
  /** In page units; null where the chosen differ. */
  value: number | null;
  /** The value under a moving hand, where it can be moved by one. */
  follows?: Following<number | null>;
  unit: Unit;
  min?: number;
  max?: number;
  disabled?: boolean;
  onCommit: (px: number) => void;
};

/** What one press of an arrow adds, in page units: a pixel, a quarter point, a tenth of a millimetre. */
const stepOf = (unit: Unit): number => (unit === 'px' ? 1 : unit === 'pt' ? 96 / 72 / 4 : 96 / 25.4 / 10);

/** Decimals that can be seen in print, or on a screen. */
const digitsOf: Record<Unit, number> = { px: 2, mm: 2, cm: 3, in: 3, pt: 2 };

const written = (px: number | null, unit: Unit): string | null =>
  px === null ? null : formatNumber(toUnit(px, unit), digitsOf[unit]).replace(/,/g, '');

/** A field for a length. It takes units and arithmetic. */
export function LengthField({ label, value, follows, unit, min = -1e6, max = 1e6, disabled, onCommit }: Props) {
  const bounded = (px: number): number => Math.min(max, Math.max(min, px));
  const read = (text: string): number | null => {
    const px = parseLength(text, unit);
    return px !== null && px >= min && px <= max ? px : null;
  };
  const shown = follows && { subscribe: follows.subscribe, now: () => written(follows.now(), unit) };
  return (
    <FigureField
      label={label}
      shown={written(value, unit)}
      follows={shown}
      unit={unit}
      help="A length, such as 3 mm or 2pt + 0.5"
      disabled={disabled}
      read={read}
      stepped={(text, steps) => bounded(((text !== null && read(text)) || value || 0) + steps * stepOf(unit))}
      onCommit={(px) => (value === null || Math.abs(px - value) > 1e-9) && onCommit(px)}
    />
  );
}
