import { worker, workerEmit } from 'workerpool';
import { readSvg } from '@/core';
import { decodedSvg } from './decodedSvg';
import { exportedFile } from './exportedFile';
import { history } from './history';
import { movingFile, type MovingArguments } from './movingFile';

/** What is refused is an answer: an error loses its kind on its way out of a thread. */
export type Answer<T> = { readonly done: T } | { readonly refused: string };

const answered =
  <A extends unknown[], T>(job: (...args: A) => T | Promise<T>) =>
  async (...args: A): Promise<Answer<T>> => {
    try {
      return { done: await job(...args) };
    } catch (error) {
      if (error instanceof RangeError) return { refused: error.message };
      throw error;
    }
  };

/** What threads do. */
const jobs = {
  /** An SVG's bytes as a drawing, with its pictures. */
  readSvg: answered((bytes: Uint8Array) => readSvg(decodedSvg(bytes))),
  /** A drawing as a file. */
  exportedFile: answered(exportedFile),
  /** A drawing that draws itself, as a file or as numbered ones; tells how many pictures are made. */
  movingFile: answered((...args: MovingArguments) => movingFile(args, (made) => workerEmit(made))),
  /** How a drawing came about. */
  history: answered(history),
};

export type Jobs = typeof jobs;
/** What a job gives. */
export type Done<K extends keyof Jobs> = Awaited<ReturnType<Jobs[K]>> extends Answer<infer T> ? T : never;

worker(jobs);
