import type { Unit } from './schema';

/** How many page units (CSS px, 96 to the inch) one of each unit is. Source: CSS Values and Units, absolute lengths. */
export const PX_PER: Readonly<Record<Unit, number>> = { px: 1, mm: 96 / 25.4, cm: 96 / 2.54, in: 96, pt: 96 / 72 };

export const fromUnit = (value: number, unit: Unit): number => value * PX_PER[unit];
export const toUnit = (px: number, unit: Unit): number => px / PX_PER[unit];

/** How many device pixels a length in page units takes at `dpi`. */
export const pixelsAt = (px: number, dpi: number): number => Math.max(1, Math.round((px * dpi) / 96));
