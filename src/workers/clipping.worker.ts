import { expose, transfer } from 'comlink';
import { nanoid } from 'nanoid';
import type { Point } from '@/core';
import { clippingOf } from '@/core/formats/clipping';
import { packed } from '@/core/formats/packed';
import { practiceSvg } from './practiceSvg';

/** A clipping, its items packed: very many come over in a fraction of the time. */
function read(text: string, kept: string | null, at: Point | null) {
  const { items, ...rest } = clippingOf(text, kept, at, () => nanoid(10));
  return { ...rest, bytes: packed(items) };
}

const [ROUNDS, LINES] = [16, 100];

const reading = {
  read: (text: string, kept: string | null, at: Point | null) => {
    const clipping = read(text, kept, at);
    return transfer(clipping, [clipping.bytes.buffer]);
  },
  /** Reads a text of its own a few times: what has run often the engine runs several times as fast. Heeds others in between. */
  warm: async (): Promise<void> => {
    const text = practiceSvg(LINES);
    for (let i = 0; i < ROUNDS; i++) {
      read(text, null, { x: 0, y: 0 });
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  },
};

export type ClippingWorker = typeof reading;
expose(reading);
