import { evaluate } from 'mathjs/number';
import type { Unit } from '@/core';
import { PX_PER } from '@/core/drawing/unit';

const WITH_UNIT = /(\d+(?:\.\d*)?|\.\d+|\))\s*(px|mm|cm|in|pt)\b/g;

/**
 * What a person typed as a length, in page units: a number in `unit`, a number with a unit, or arithmetic with either
 * ("12", "3 mm + 2pt", "(210mm - 20mm)/3"). A comma stands for a decimal point. Null when it makes no sense.
 */
export function parseLength(text: string, unit: Unit): number | null {
  const plain = text.trim().toLowerCase().replace(/,/g, '.').replace(/−/g, '-').replace(/×/g, '*').replace(/÷/g, '/');
  let hasUnit = false;
  const inPx = plain.replace(WITH_UNIT, (_, value: string, u: Unit) => {
    hasUnit = true;
    return value === ')' ? `)*${PX_PER[u]}` : `(${value}*${PX_PER[u]})`;
  });
  if (!/^[\d\s.+\-*/()]+$/.test(inPx)) return null;
  try {
    const value: unknown = evaluate(inPx);
    if (typeof value !== 'number' || !Number.isFinite(value)) return null;
    return hasUnit ? value : value * PX_PER[unit];
  } catch {
    return null;
  }
}
