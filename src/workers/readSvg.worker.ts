import { expose } from 'comlink';
import { readSvg } from '@/core';

const reading = {
  read: readSvg,
  /** Answers when it is there. */
  ready: (): void => undefined,
};

export type ReadSvgWorker = typeof reading;
expose(reading);
