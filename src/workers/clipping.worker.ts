import { expose } from 'comlink';
import { nanoid } from 'nanoid';
import type { Point } from '@/core';
import { clippingOf } from '@/core/formats/clipping';

const reading = {
  read: (text: string, kept: string | null, at: Point | null) => clippingOf(text, kept, at, () => nanoid(10)),
};

export type ClippingWorker = typeof reading;
expose(reading);
