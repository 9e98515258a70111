import { clampChroma, converter, formatHex, parse } from 'culori';

/** Tones: how light a colour looks, 0 black … 1 white (the lightness of OKLab: Ottosson 2020). */

const toLab = converter('oklab');
const toLch = converter('oklch');

export const toneOf = (colour: string): number => toLab(parse(colour)!).l;

/** A colour of another tone, in its hue, with as much of its chroma as can be shown. */
export const withTone = (colour: string, tone: number): string =>
  formatHex(clampChroma({ ...toLch(parse(colour)!), l: Math.min(1, Math.max(0, tone)) }, 'oklch'));

/** So few and so many steps are told apart. */
export const FEWEST_STEPS = 2;
export const MOST_STEPS = 7;

/** Which of so many even steps of tone a colour is in: 1 the darkest. */
export const valueStep = (colour: string, steps: number): number => stepOfTone(toneOf(colour), steps);

export const stepOfTone = (tone: number, steps: number): number =>
  Math.min(steps, 1 + Math.floor(Math.max(0, tone) * steps));

/** The tone in the middle of a step. */
export const toneOfStep = (step: number, steps: number): number => (step - 0.5) / steps;
