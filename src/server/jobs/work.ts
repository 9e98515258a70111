import { setPriority } from 'node:os';
import { worker, workerEmit } from 'workerpool';
import type { Delivery } from '@/core/deliver/delivery';
import { unpacked } from '@/core/formats/packed';
import type { Motion } from '@/core/replay/motion';
import type { FileOptions } from './exportedFile';
import type { JournalRow } from './history';
import type { PictureFiles } from './seenPictures';

/** What is refused is an answer: an error loses its kind on its way out of a process. */
export type Answer<T> = ({ readonly done: T } | { readonly refused: string }) & { readonly isSwollen: boolean };

/** A process that rests with more than this is ended, and another begun. */
const MOST_AT_REST = 700 * 1024 * 1024;
const isSwollen = (): boolean => process.memoryUsage.rss() > MOST_AT_REST;

const answered =
  <A extends unknown[], T>(job: (...args: A) => T | Promise<T>) =>
  async (...args: A): Promise<Answer<T>> => {
    try {
      return { done: await job(...args), isSwollen: isSwollen() };
    } catch (error) {
      if (error instanceof RangeError) return { refused: error.message, isSwollen: isSwollen() };
      throw error;
    }
  };

/** A drawing packed: handing the drawing itself over would hold up whoever hands it for five times as long. */
type PackedDrawing = Uint8Array;
type PackedOptions = Omit<FileOptions, 'beside'> & { readonly beside?: readonly PackedDrawing[] };

/** What is done apart. Each job brings in what it needs when it is first asked for: a card waits for no writer of PDF. */
const jobs = {
  /** An SVG's bytes as a drawing, with its pictures. */
  readSvg: answered(async (bytes: Uint8Array) => {
    const [{ readSvg }, { decodedSvg }] = await Promise.all([
      import('@/core/formats/svg/readSvg'),
      import('./decodedSvg'),
    ]);
    return readSvg(decodedSvg(bytes));
  }),
  /** A drawing as a file. */
  exportedFile: answered(
    async (
      drawing: PackedDrawing,
      wanted: Delivery,
      { beside, ...rest }: PackedOptions,
      files: PictureFiles,
      derived: string,
    ) => {
      const options = { ...rest, ...(beside && { beside: beside.map(unpacked) }) };
      const { exportedFile } = await import('./exportedFile');
      return exportedFile(unpacked(drawing), wanted, options, files, derived);
    },
  ),
  /** The picture on a drawing's card. */
  card: answered(async (drawing: PackedDrawing, most: number, files: PictureFiles, derived: string) => {
    const { card } = await import('./card');
    return card(unpacked(drawing), most, files, derived);
  }),
  /** A drawing that draws itself, as a file or as numbered ones; tells how many pictures are made. */
  movingFile: answered(
    async (
      drawing: PackedDrawing,
      wanted: Delivery,
      motion: Motion,
      title: string,
      files: PictureFiles,
      derived: string,
    ) => {
      const { movingFile } = await import('./movingFile');
      return movingFile([unpacked(drawing), wanted, motion, title, files, derived], (made) => workerEmit(made));
    },
  ),
  /** How a drawing came about. */
  history: answered(async (first: PackedDrawing, rows: readonly JournalRow[], most: number) => {
    const { history } = await import('./history');
    return history(unpacked(first), rows, most);
  }),
};

export type Jobs = typeof jobs;
/** What a job gives. */
export type Done<K extends keyof Jobs> = Awaited<ReturnType<Jobs[K]>> extends Answer<infer T> ? T : never;

// Whoever saves goes before (nice, POSIX).
setPriority(10);
worker(jobs);
