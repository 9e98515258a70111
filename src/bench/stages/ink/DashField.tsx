'use client';

import { Input } from 'antd';
import { useRef, useState } from 'react';
import type { Dash } from '@/core/drawing/schema';
import { toUnit } from '@/core/drawing/unit';
import { LengthField } from '@/ui/LengthField';
import { formatNumber } from '@/ui/format';
import { parseLength } from '@/ui/measure';

type Props = {
  dash: Dash | null | 'mixed';
  disabled: boolean;
  /** Undefined for a whole stroke. */
  onCommit: (dash: Dash | undefined) => void;
};

const MOST = 12;

/** The lengths of a dash list as they are written; null for a text that is none. An empty one stands for no dashes. */
export function readDashes(text: string): number[] | null {
  // A unit may stand apart from its number.
  const parts = text
    .replace(/(\d)\s+(px|mm|cm|in|pt)\b/g, '$1$2')
    .split(/[\s,;]+/)
    .filter(Boolean);
  const lengths = parts.map((p) => parseLength(p, 'pt'));
  const isSound = lengths.every((l): l is number => l !== null && l >= 0 && l <= 10_000) && lengths.length <= MOST;
  if (!isSound || (lengths.length > 0 && !lengths.some((l) => l > 0))) return null;
  return lengths;
}

const written = ({ lengths }: Dash): string =>
  lengths.map((l) => formatNumber(toUnit(l, 'pt'), 2).replace(/,/g, '')).join(' ');

/** Strokes and gaps in turns, as lengths one after the other, and how far into them a stroke begins. */
export function DashField({ dash, disabled, onCommit }: Props) {
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  // Leaving the field comes while the text that was set or given up is still there.
  const leaving = useRef(false);
  const known = dash === 'mixed' || dash === null ? null : dash;
  const shown = known ? written(known) : '';
  const leave = (field: HTMLInputElement): void => {
    leaving.current = true;
    field.blur();
    leaving.current = false;
  };
  const commit = (): boolean => {
    if (leaving.current) return true;
    const lengths = text === null || text === shown ? [] : readDashes(text);
    setWrong(lengths === null);
    if (lengths === null) return false;
    if (text !== null && text !== shown)
      onCommit(lengths.length > 0 ? { lengths, offset: known?.offset ?? 0 } : undefined);
    setText(null);
    return true;
  };
  return (
    <>
      <span className="option-label">Dashes</span>
      <Input
        size="small"
        className="dash-field"
        aria-label="Dashes"
        aria-invalid={wrong}
        status={wrong ? 'error' : undefined}
        title={
          wrong
            ? 'Lengths of strokes and gaps in turns, such as 6 2'
            : 'Strokes and gaps in turns, such as 6 2; empty: whole'
        }
        disabled={disabled}
        value={text ?? shown}
        placeholder={dash === 'mixed' ? 'mixed' : 'whole'}
        suffix={<span className="unit">pt</span>}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Enter' && commit()) leave(e.currentTarget);
          if (e.key === 'Escape') {
            setText(null);
            setWrong(false);
            leave(e.currentTarget);
          }
        }}
      />
      {known && (
        <>
          <span className="option-label">begin at</span>
          <LengthField
            label="Dash offset"
            value={known.offset}
            unit="pt"
            min={-10_000}
            max={10_000}
            disabled={disabled}
            onCommit={(offset) => onCommit({ ...known, offset })}
          />
        </>
      )}
    </>
  );
}
