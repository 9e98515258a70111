import { worker, workerEmit } from 'workerpool';
import { readSvg } from '@/core';
import type { Delivery } from '@/core/deliver/delivery';
import { unpacked } from '@/core/formats/packed';
import type { Motion } from '@/core/replay/motion';
import { decodedSvg } from './decodedSvg';
import { exportedFile, type FileOptions, type PictureFiles } from './exportedFile';
import { history, type JournalRow } from './history';
import { movingFile } from './movingFile';

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

/** A drawing packed: handing the drawing itself over would hold up whoever hands it for five times as long. */
type PackedDrawing = Uint8Array;
type PackedOptions = Omit<FileOptions, 'beside'> & { readonly beside?: readonly PackedDrawing[] };

/** What threads do. */
const jobs = {
  /** An SVG's bytes as a drawing, with its pictures. */
  readSvg: answered((bytes: Uint8Array) => readSvg(decodedSvg(bytes))),
  /** A drawing as a file. */
  exportedFile: answered(
    (
      drawing: PackedDrawing,
      wanted: Delivery,
      { beside, ...rest }: PackedOptions,
      files: PictureFiles,
      derived: string,
    ) => {
      const options = { ...rest, ...(beside && { beside: beside.map(unpacked) }) };
      return exportedFile(unpacked(drawing), wanted, options, files, derived);
    },
  ),
  /** A drawing that draws itself, as a file or as numbered ones; tells how many pictures are made. */
  movingFile: answered(
    (drawing: PackedDrawing, wanted: Delivery, motion: Motion, title: string, files: PictureFiles, derived: string) =>
      movingFile([unpacked(drawing), wanted, motion, title, files, derived], (made) => workerEmit(made)),
  ),
  /** How a drawing came about. */
  history: answered((first: PackedDrawing, rows: readonly JournalRow[], most: number) =>
    history(unpacked(first), rows, most),
  ),
};

export type Jobs = typeof jobs;
/** What a job gives. */
export type Done<K extends keyof Jobs> = Awaited<ReturnType<Jobs[K]>> extends Answer<infer T> ? T : never;

worker(jobs);
