import { z } from 'zod';
import type { DeepReadonly } from '../readonly';
import { LEAST_BEND, MOST_BEND, unbentSize } from './lens';

/**
 * What is done to a reference's picture before it is shown: a list, applied from the first to the last, each with a
 * switch. The picture itself is never altered. Places are shares (0…1) of the picture as the step finds it, so that a
 * reduced picture is corrected alike.
 */

const share = z.number().min(0).max(1);
const place = z.strictObject({ x: z.number().min(-0.5).max(1.5), y: z.number().min(-0.5).max(1.5) });
const on = z.boolean();

export const correctionSchema = z.discriminatedUnion('kind', [
  /** How a lens bent it (see `lens`), and the lines that tell: places along what is straight. */
  z.strictObject({
    kind: z.literal('lens'),
    on,
    bend: z.number().min(LEAST_BEND).max(MOST_BEND),
    lines: z.array(z.array(place).min(3).max(64)).max(24),
  }),
  /** How much is cut off each side. */
  z.strictObject({ kind: z.literal('crop'), on, left: share, top: share, right: share, bottom: share }),
  /** Turned clockwise about its middle; the picture grows so that nothing is cut off. */
  z.strictObject({ kind: z.literal('turn'), on, degrees: z.number().min(-180).max(180) }),
  /** Four corners of a page, from its upper left one on, clockwise; `aspect` is its width by its height, null: as seen. */
  z.strictObject({
    kind: z.literal('straighten'),
    on,
    corners: z.tuple([place, place, place, place]),
    aspect: z.number().min(0.05).max(20).nullable(),
  }),
  /** How much of the paper's unevenness is taken out. */
  z.strictObject({ kind: z.literal('light'), on, strength: share }),
  /** What becomes black, what becomes white, and the power that lightens (below 1) or darkens what lies between. */
  z.strictObject({
    kind: z.literal('levels'),
    on,
    black: z.number().min(0).max(254),
    white: z.number().min(1).max(255),
    middle: z.number().min(0.1).max(10),
  }),
  z.strictObject({ kind: z.literal('invert'), on }),
  z.strictObject({ kind: z.literal('grey'), on }),
  /** `window` is a share of the longer side. */
  z.strictObject({
    kind: z.literal('threshold'),
    on,
    method: z.enum(['global', 'adaptive']),
    level: z.number().min(0).max(256),
    window: z.number().min(0.002).max(0.5),
  }),
  z.strictObject({ kind: z.literal('tint'), on, colour: z.string().regex(/^#[0-9a-f]{6}$/) }),
  /** What is darker than a level in one colour, all else in another. */
  z.strictObject({
    kind: z.literal('twoTone'),
    on,
    dark: z.string().regex(/^#[0-9a-f]{6}$/),
    light: z.string().regex(/^#[0-9a-f]{6}$/),
    level: z.number().min(0).max(256),
  }),
  /** The standard deviation of a Gaussian kernel, in px of the whole picture. */
  z.strictObject({ kind: z.literal('blur'), on, radius: z.number().min(0).max(50) }),
  /** How often each pixel takes the median of its neighbours. */
  z.strictObject({ kind: z.literal('denoise'), on, rounds: z.number().int().min(1).max(3) }),
  /** Smoothed over so many px of the whole picture, but not over what differs by more than the contrast, 0…255. */
  z.strictObject({
    kind: z.literal('simplify'),
    on,
    radius: z.number().min(0).max(200),
    contrast: z.number().min(1).max(255),
  }),
  /** All that lies outside of some outlines (even-odd) is brought towards white, by a share. */
  z.strictObject({
    kind: z.literal('apart'),
    on,
    outlines: z.array(z.array(place).min(3).max(4_000)).max(200),
    dim: share,
  }),
  /** Brought down to a few colours. */
  z.strictObject({
    kind: z.literal('steps'),
    on,
    colours: z
      .array(z.string().regex(/^#[0-9a-f]{6}$/))
      .min(2)
      .max(24),
  }),
]);

export type Correction = DeepReadonly<z.infer<typeof correctionSchema>>;
export type CorrectionKind = Correction['kind'];
export type CorrectionOf<K extends CorrectionKind> = Extract<Correction, { kind: K }>;

/** A correction as it is when it is first switched on. */
export const firstCorrections: { readonly [K in CorrectionKind]: CorrectionOf<K> } = {
  lens: { kind: 'lens', on: true, bend: 0, lines: [] },
  crop: { kind: 'crop', on: true, left: 0, top: 0, right: 0, bottom: 0 },
  turn: { kind: 'turn', on: true, degrees: 0 },
  straighten: {
    kind: 'straighten',
    on: true,
    corners: [
      { x: 0.1, y: 0.1 },
      { x: 0.9, y: 0.1 },
      { x: 0.9, y: 0.9 },
      { x: 0.1, y: 0.9 },
    ],
    aspect: null,
  },
  light: { kind: 'light', on: true, strength: 1 },
  levels: { kind: 'levels', on: true, black: 0, white: 255, middle: 1 },
  invert: { kind: 'invert', on: true },
  grey: { kind: 'grey', on: true },
  threshold: { kind: 'threshold', on: true, method: 'adaptive', level: 128, window: 0.025 },
  tint: { kind: 'tint', on: true, colour: '#2d3a8c' },
  twoTone: { kind: 'twoTone', on: true, dark: '#20304f', light: '#f2e6d0', level: 128 },
  blur: { kind: 'blur', on: true, radius: 1 },
  denoise: { kind: 'denoise', on: true, rounds: 1 },
  apart: { kind: 'apart', on: true, outlines: [], dim: 0.8 },
  simplify: { kind: 'simplify', on: true, radius: 20, contrast: 60 },
  steps: { kind: 'steps', on: true, colours: ['#262626', '#6e6e6e', '#b4b4b4', '#f0f0f0'] },
};

/** In what order corrections come to lie when they are added: first what changes the shape, last what the eye wants. */
export const usualOrder: readonly CorrectionKind[] = [
  'lens',
  'crop',
  'turn',
  'straighten',
  'apart',
  'denoise',
  'light',
  'levels',
  'simplify',
  'blur',
  'steps',
  'grey',
  'threshold',
  'invert',
  'tint',
  'twoTone',
];

/** Whether a correction moves what is in the picture, and so may change its size. */
export const movesPicture = (kind: CorrectionKind): boolean =>
  kind === 'lens' || kind === 'crop' || kind === 'turn' || kind === 'straighten';

export type Size = { width: number; height: number };

/** The size of a picture after corrections, in whole px of the picture they began with. */
export const correctedSize = (size: Size, corrections: readonly Correction[]): Size =>
  corrections.reduce((s, c) => (c.on ? sizeAfter(s, c) : s), size);

export function sizeAfter({ width, height }: Size, c: Correction): Size {
  const whole = (w: number, h: number): Size => ({
    width: Math.max(1, Math.round(w)),
    height: Math.max(1, Math.round(h)),
  });
  if (c.kind === 'lens') {
    const size = unbentSize({ width, height }, c.bend);
    return whole(size.width, size.height);
  }
  if (c.kind === 'crop') {
    return whole(width * Math.max(0.01, 1 - c.left - c.right), height * Math.max(0.01, 1 - c.top - c.bottom));
  }
  if (c.kind === 'turn') {
    const a = (c.degrees * Math.PI) / 180;
    const [cos, sin] = [Math.abs(Math.cos(a)), Math.abs(Math.sin(a))];
    return whole(width * cos + height * sin, width * sin + height * cos);
  }
  if (c.kind !== 'straighten') return { width, height };
  const side = (i: number): number => {
    const [p, q] = [c.corners[i], c.corners[(i + 1) % 4]];
    return Math.hypot((q.x - p.x) * width, (q.y - p.y) * height);
  };
  const [w, h] = [Math.max(side(0), side(2)), Math.max(side(1), side(3))];
  if (c.aspect === null) return whole(w, h);
  return w / h > c.aspect ? whole(w, w / c.aspect) : whole(h * c.aspect, h);
}

/** All that is done to a reference's picture before it is shown: its corrections, and the tint it is dimmed with. */
export const asShown = (r: { corrections: readonly Correction[]; tint?: string | null }): readonly Correction[] =>
  r.tint == null ? r.corrections : [...r.corrections, { kind: 'tint', on: true, colour: r.tint }];
