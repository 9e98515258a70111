import { createStore } from 'zustand/vanilla';
import { createJSONStorage, persist, type StateStorage } from 'zustand/middleware';
import type { Blend } from '@/core';
import type { Delivery } from '@/core/deliver/delivery';
import { firstMotion, type Motion } from '@/core/replay/motion';
import { firstResponse, type Response } from '@/core/ink/pressure';
import { preferencesKey } from './localKeys';

export const shapeKinds = ['rectangle', 'ellipse', 'polygon', 'star', 'arc', 'straight line'] as const;
export type ShapeKind = (typeof shapeKinds)[number];

/** How the shape tool draws: its kind and figures. Lengths in page units, angles in degrees. */
export type ShapeFigures = {
  kind: ShapeKind;
  width: number;
  height: number;
  sides: number;
  /** A star's inner radius as a share of its outer one. */
  depth: number;
  rounding: number;
  from: number;
  to: number;
};

/** What a sampled colour is for: to be poured, for what is chosen, or for the palette. */
export type SampleTo = 'hand' | 'strokes' | 'fills' | 'swatch';

/** By what lines are chosen alike; differences in page units of width, and of a colour's channels (0…255). */
export type AlikeFigures = Record<'width' | 'colour' | 'fill' | 'sheet' | 'kind' | 'closed', boolean> & {
  widthWithin: number;
  colourWithin: number;
};

/** What a person has set for their own hand, in this browser, for all drawings. */
export type Preferences = {
  /** New nodes are drawn to the nodes and segments of other lines. */
  snapLines: boolean;
  /** What is dragged is brought into line with other things: sides, middles, equal gaps. */
  alignThings: boolean;
  /** What a press on a picture picks next. */
  pickTone: 'ink' | 'paper';
  /** A frame with grips is shown around what is chosen. */
  frame: boolean;
  /** What is poured: a colour, over gaps of so many page units; to the lines' inner edges only, or to their middles. */
  pour: { colour: string; gap: number; isInner: boolean };
  /** What file was wanted last; null before the first. And such choices kept by name. */
  delivery: Delivery | null;
  presets: readonly { readonly name: string; readonly wanted: Delivery }[];
  /** What the cards of the deliver stage show. */
  deliverCards: 'ready' | 'order' | 'file' | 'hand in';
  /** How a replay goes: at a speed (page units a second) or to a length (s), with a rest after each part. */
  replay: { by: 'length' | 'speed'; length: number; speed: number; pause: number };
  /** How it is saved. */
  motion: Motion;
  /** What the cards of the colour stage show. */
  colourCards: 'flats' | 'palette' | 'tones';
  /** In how many greys squinting shows things, and how soft, CSS px. */
  squint: { steps: number; soft: number };
  /** How shapes of shade and light are drawn: by so many of so many steps of tone. */
  shade: { light: boolean; steps: number; by: number; blend: Blend; opacity: number };
  gradientKind: 'linear' | 'radial';
  /** What sampling takes: a place, or the colour most of an area has; of the picture corrected or not; and what for. */
  sample: { of: 'place' | 'mean' | 'area'; corrected: boolean; to: SampleTo };
  /** How far flats' tones are from the picture's is hatched over them. */
  toneWash: boolean;
  /** The colours that were taken last, the newest first. */
  samples: readonly string[];
  /** The pen lays corners only, to be bent later. */
  straightFirst: boolean;
  /** Length, angle and node count beside the pen. */
  figures: boolean;
  /** How far a pencil line may leave the hand, in px of the screen. */
  smoothing: number;
  /** A pencil stroke along the chosen line redraws that part of it; else only one with Alt does. */
  redraw: boolean;
  pressure: boolean;
  /** How widths answer to pressure. */
  response: Response;
  shape: ShapeFigures;
  alike: AlikeFigures;
  marquee: 'box' | 'lasso';
  /** A marquee chooses what lies in it as a whole, not all that it touches. */
  enclosing: boolean;
  /** Stroke widths grow with lines that are scaled. */
  scaleWidths: boolean;
  /** A width or height that is set takes the other along. */
  keepShape: boolean;
  /** What the hand does is counted, on this machine. */
  handRecord: boolean;
  /** Lines are shown in the tag colours of their sheets. */
  draft: boolean;
  seeThrough: boolean;
  bare: boolean;
  loupe: boolean;
  loupeTimes: number;
  /** The pen follows the ink. */
  follow: boolean;
  /** Letters lie under the right hand: the left one holds the pen. */
  mirrored: boolean;
  /** The order of the drawings on the home page. */
  homeOrder: 'changed' | 'newest' | 'title';
  /** A pen has been used here: it draws, and a finger pans, unless fingers are to draw as well. */
  penSeen: boolean;
  fingerDraws: boolean;
  /** The panels at the sides that are folded away. */
  folded: { left: boolean; right: boolean };
  /** Keys that were changed, by the name of what they do. */
  keys: Record<string, string>;
  /** Nodes carry their neighbours along, over so many page units of line. */
  sway: boolean;
  swayReach: number;
  /** What the node tool shows. */
  showHandles: boolean;
  showNodes: boolean;
  showSkeleton: boolean;
  /** Views over the page: how far lines run from the ink, ink without a line, how lines bend, how they join. */
  distance: boolean;
  coverage: boolean;
  comb: boolean;
  flow: boolean;
  /** How far from a line its ink may be, px of the reference. */
  inkReach: number;
  /** How much of the way to the ink lines are settled, 0…1. */
  strength: number;
  thin: { tolerance: number; smoothing: number; extremes: boolean };
  /** Between which widths ink is read, and over how much of a line it is evened out; page units. */
  read: { smoothing: number; smallest: number; largest: number };
  /** The step of the first-trace walk-through; null when it is not under way. */
  walk: number | null;
};

export const firstPreferences: Preferences = {
  snapLines: true,
  alignThings: true,
  frame: true,
  pickTone: 'ink',
  pour: { colour: '#c8b89a', gap: 6, isInner: false },
  deliverCards: 'file',
  replay: { by: 'length', length: 10, speed: 300, pause: 0.3 },
  motion: firstMotion,
  delivery: null,
  presets: [],
  colourCards: 'flats',
  squint: { steps: 4, soft: 2 },
  toneWash: false,
  shade: { light: false, steps: 5, by: 1, blend: 'normal', opacity: 1 },
  gradientKind: 'linear',
  sample: { of: 'place', corrected: true, to: 'hand' },
  samples: [],
  straightFirst: false,
  figures: true,
  smoothing: 2,
  redraw: false,
  pressure: true,
  response: firstResponse,
  shape: { kind: 'ellipse', width: 120, height: 80, sides: 5, depth: 0.45, rounding: 0, from: 0, to: 180 },
  alike: {
    width: true,
    colour: true,
    fill: false,
    sheet: false,
    kind: false,
    closed: false,
    widthWithin: 0.2,
    colourWithin: 8,
  },
  marquee: 'box',
  enclosing: false,
  scaleWidths: true,
  keepShape: true,
  handRecord: true,
  draft: false,
  seeThrough: false,
  bare: false,
  loupe: false,
  loupeTimes: 4,
  follow: false,
  sway: false,
  swayReach: 120,
  showHandles: true,
  showNodes: true,
  showSkeleton: true,
  distance: true,
  coverage: false,
  comb: false,
  flow: false,
  inkReach: 12,
  strength: 1,
  thin: { tolerance: 0.5, smoothing: 0, extremes: false },
  read: { smoothing: 12, smallest: 0.5, largest: 40 },
  mirrored: false,
  homeOrder: 'changed',
  penSeen: false,
  fingerDraws: false,
  folded: { left: false, right: false },
  keys: {},
  walk: null,
};

/** The browser's storage where it lets itself be used; else this page's memory. */
const memory = new Map<string, string>();
const storage: StateStorage = {
  getItem: (name) => attempt(() => localStorage.getItem(name)) ?? memory.get(name) ?? null,
  setItem: (name, value) => {
    memory.set(name, value);
    attempt(() => localStorage.setItem(name, value));
  },
  removeItem: (name) => {
    memory.delete(name);
    attempt(() => localStorage.removeItem(name));
  },
};

function attempt<T>(f: () => T): T | null {
  try {
    return f();
  } catch {
    return null;
  }
}

export const preferences = createStore<Preferences>()(
  persist(() => firstPreferences, {
    name: preferencesKey,
    version: 1,
    storage: createJSONStorage<Preferences>(() => storage),
    merge: (kept, first) => ({ ...first, ...(kept as Partial<Preferences>) }),
  }),
);

export function prefer(some: Partial<Preferences>): void {
  preferences.setState(some);
}

/** Sets some figures of one kind, and leaves the others as they are by now. */
export function preferIn<
  K extends
    'shape' | 'alike' | 'thin' | 'read' | 'folded' | 'pour' | 'squint' | 'shade' | 'sample' | 'replay' | 'motion',
>(kind: K, some: Partial<Preferences[K]>): void {
  preferences.setState((p) => ({ [kind]: { ...p[kind], ...some } }));
}
