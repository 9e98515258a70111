import { expose, transfer } from 'comlink';
import { nanoid } from 'nanoid';
import type { Point } from '@/core';
import { clippingOf } from '@/core/formats/clipping';
import { packed } from '@/core/formats/packed';

/** A clipping, its items packed: very many come over in a fraction of the time. */
function read(text: string, kept: string | null, at: Point | null) {
  const { items, ...rest } = clippingOf(text, kept, at, () => nanoid(10));
  return { ...rest, bytes: packed(items) };
}

const [ROUNDS, LINES, NODES] = [10, 100, 8];

/** Waving lines as programs write them. */
function sample(): string {
  const figure = (i: number): string => (500 + 300 * Math.sin(i * 0.37)).toFixed(3);
  const triple = (i: number): string => [0, 1, 2, 3, 4, 5].map((k) => figure(i + k)).join(' ');
  const path = (i: number): string => {
    const curves = Array.from({ length: NODES }, (_, k) => `C${triple(i + k)}`).join('');
    return `<path d="M${figure(i)} ${figure(i + 1)}${curves}" fill="none" stroke="#27241d" stroke-width="2.5" stroke-linecap="round"/>`;
  };
  const paths = Array.from({ length: LINES }, (_, i) => path(i)).join('\n');
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1000 1000"><g id="a">${paths}</g></svg>`;
}

const reading = {
  read: (text: string, kept: string | null, at: Point | null) => {
    const clipping = read(text, kept, at);
    return transfer(clipping, [clipping.bytes.buffer]);
  },
  /** Reads a text of its own a few times: what has run often the engine runs several times as fast. Heeds others in between. */
  warm: async (): Promise<void> => {
    const text = sample();
    for (let i = 0; i < ROUNDS; i++) {
      read(text, null, { x: 0, y: 0 });
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  },
};

export type ClippingWorker = typeof reading;
expose(reading);
