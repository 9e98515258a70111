import { expose } from 'comlink';
import { readSvg } from '@/core';

const reading = { read: readSvg };

export type ReadSvgWorker = typeof reading;
expose(reading);
