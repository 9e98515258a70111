import { fromUnit } from '../../drawing/unit';
import { units, type Unit } from '../../drawing/schema';

/** A figure is no longer than this, characters; what is, is none. */
const MOST_FIGURE = 100;

/** What lengths are told by where they are not absolute. */
export type Measures = {
  /** The size of the letters, user units: for em and its kin. */
  readonly fontSize: number;
  /** The viewport's sides, user units: for per cents. */
  readonly width: number;
  readonly height: number;
};
export type Along = 'x' | 'y' | 'both';

export const plainMeasures: Measures = { fontSize: 16, width: 100, height: 100 };

/** A length's figure and unit (CSS Values 4, 6); null for what is none. */
export function figureOf(text: string | undefined): { value: number; unit: string } | null {
  const plain = (text ?? '').trim();
  if (plain.length > MOST_FIGURE) return null;
  const found = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*([a-z%]*)$/i.exec(plain);
  if (!found) return null;
  const value = Number(found[1]);
  return Number.isFinite(value) ? { value, unit: found[2].toLowerCase() } : null;
}

/** A length in user units (SVG 2, 8.9); null for what cannot be read. */
export function lengthOf(text: string | undefined, m: Measures = plainMeasures, along: Along = 'both'): number | null {
  const figure = figureOf(text);
  if (!figure) return null;
  const { value, unit } = figure;
  if (unit === '') return value;
  if (unit === '%') {
    const whole = along === 'x' ? m.width : along === 'y' ? m.height : Math.hypot(m.width, m.height) / Math.SQRT2;
    return (value / 100) * whole;
  }
  if (unit === 'em') return value * m.fontSize;
  if (unit === 'ex' || unit === 'ch') return (value * m.fontSize) / 2;
  if (unit === 'rem') return value * plainMeasures.fontSize;
  if (unit === 'pc') return value * 16;
  if (unit === 'q') return fromUnit(value / 4, 'mm');
  return units.includes(unit as Unit) ? fromUnit(value, unit as Unit) : null;
}

/** A share as a figure or in per cent, held within 0…1; null when it is neither. */
export function shareOf(text: string): number | null {
  const figure = figureOf(text);
  if (!figure || (figure.unit !== '' && figure.unit !== '%')) return null;
  return Math.min(1, Math.max(0, figure.unit === '%' ? figure.value / 100 : figure.value));
}
