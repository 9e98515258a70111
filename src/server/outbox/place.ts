import type { FileFormat } from '@/core/deliver/fileFormats';

/** Somewhere that work is handed in to. */
export type HandInPlace = {
  readonly id: string;
  readonly name: string;
  /** What it takes, in words and as kinds of files. */
  readonly takes: string;
  readonly formats: readonly FileFormat[];
  /** Until when, ms since 1970; null without an end. */
  readonly deadline: number | null;
};

/** What goes along with a file. */
export type Manifest = {
  readonly title: string;
  readonly revision: number;
  readonly name: string;
  readonly mime: string;
  readonly bytes: number;
  /** Of the file, hexadecimal. */
  readonly sha256: string;
};

export type Receipt = { readonly number: string; readonly at: number };

/** The place does not take it, and says why. Sent again as it is it would not be taken either. */
export class Refused extends Error {
  override name = 'Refused';
}

/** The line broke: nothing arrived, and it can be sent again. */
export class LineBroke extends Error {
  override name = 'LineBroke';
}

/**
 * The way to the places. One to real places implements this and takes the simulated one's place in `courierInUse`.
 * @throws Refused, LineBroke from `send`; the signal's reason when it is called off.
 */
export interface Courier {
  places(): Promise<readonly HandInPlace[]>;
  /** Sends a file; `onSent` hears how many of its bytes have gone over, `tries` is 1 at first. */
  send(
    place: string,
    manifest: Manifest,
    file: Buffer,
    how: { tries: number; onSent: (bytes: number) => void; signal: AbortSignal },
  ): Promise<Receipt>;
}
