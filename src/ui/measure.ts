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

/** The value of a sum of products: numbers, the four signs and brackets. Null for anything else, and where it has no end. */
function valueOf(arithmetic: string): number | null {
  if (arithmetic.length > MOST_TYPED || !/^[\d\s.+\-*/()]+$/.test(arithmetic)) return null;
  const tokens = arithmetic.match(/\d+\.?\d*|\.\d+|[-+*/()]|\S/g) ?? [];
  let at = 0;
  const sum = (): number => {
    let value = product();
    while (tokens[at] === '+' || tokens[at] === '-') value += tokens[at++] === '+' ? product() : -product();
    return value;
  };
  const product = (): number => {
    let value = factor();
    while (tokens[at] === '*' || tokens[at] === '/') value = tokens[at++] === '*' ? value * factor() : value / factor();
    return value;
  };
  const factor = (): number => {
    const token = tokens[at++];
    if (token === '-' || token === '+') return token === '-' ? -factor() : factor();
    if (token !== '(') return token === undefined ? NaN : Number(token);
    const value = sum();
    return tokens[at++] === ')' ? value : NaN;
  };
  const value = sum();
  return at === tokens.length && Number.isFinite(value) ? value : null;
}

/** Nobody types more, characters. */
const MOST_TYPED = 200;
