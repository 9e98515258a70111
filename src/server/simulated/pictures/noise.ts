import { createNoise2D } from 'simplex-noise';
import { seeded } from '@/core/seeded';

/** Smooth noise, −1…1, the same for the same seed. */
export const smoothNoise = (seed: number): ((x: number, y: number) => number) => createNoise2D(seeded(seed));

/** Several octaves of smooth noise, each twice as fine and half as strong; about −1…1. */
export function octaves(seed: number, count: number): (x: number, y: number) => number {
  const layers = Array.from({ length: count }, (_, i) => smoothNoise(seed + i * 101));
  const whole = 2 - 2 ** (1 - count);
  return (x, y) => layers.reduce((sum, noise, i) => sum + noise(x * 2 ** i, y * 2 ** i) / 2 ** i, 0) / whole;
}

/** A normally distributed number (Box and Muller 1958). */
export function gaussian(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}
