import { evaluate } from 'mathjs/number';
import type { Unit } from '@/core';
import { PX_PER } from '@/core/drawing/unit';

const WITH_UNIT = /(\d+(?:\.\d*)?|\.\d+|\))\s*(px|mm|cm|in|pt)\b/g;

/**
 * What a person typed as a length, in page units: a number in `unit`, a number with a unit, or arithmetic with either
 * ("12", "3 mm + 2pt", "(210mm - 20mm)/3"). A comma stands for a decimal point. Null when it makes no sense.
 */
export function parseLength(text: string, unit: Unit): number | null {
  const plain = plainSigns(text);
  let hasUnit = false;
  const inPx = plain.replace(WITH_UNIT, (_, value: string, u: Unit) => {
    hasUnit = true;
    return value === ')' ? `)*${PX_PER[u]}` : `(${value}*${PX_PER[u]})`;
  });
  const value = valueOf(inPx);
  return value === null || hasUnit ? value : value * PX_PER[unit];
}

/** What a person typed as a number: plain, or arithmetic. A comma stands for a decimal point. Null when it makes no sense. */
export const parseNumber = (text: string): number | null => valueOf(plainSigns(text));

const plainSigns = (text: string): string =>
  text.trim().toLowerCase().replace(/,/g, '.').replace(/−/g, '-').replace(/×/g, '*').replace(/÷/g, '/');

function valueOf(arithmetic: string): number | null {
  if (!/^[\d\s.+\-*/()]+$/.test(arithmetic)) return null;
  try {
    const value: unknown = evaluate(arithmetic);
    return typeof value === 'number' && Number.isFinite(value) ? value : null;
  } catch {
    return null;
  }
}
