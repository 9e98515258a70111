/** A page that lies ready in a scanner. */
export type ScannerPage = { id: string; name: string; width: number; height: number };

/** What is asked of a scanner: sizes of pages are mm. */
export type ScanOptions = { page: string; dpi: number; colour: boolean };

/** The paper is stuck: nothing came of the scan, and a person must look after the device. */
export class PaperJam extends Error {
  override name = 'PaperJam';
}

/**
 * A flat-bed scanner. A driver for a real one implements this and takes the simulated one's place in `scannerInUse`.
 * @throws PaperJam from `scan`; the signal's reason when it is called off.
 */
export interface Scanner {
  readonly name: string;
  pages(): Promise<ScannerPage[]>;
  /** The page as the bytes of a picture with its dpi in it; `onProgress` hears 0…1. */
  scan(options: ScanOptions, onProgress: (share: number) => void, signal: AbortSignal): Promise<Buffer>;
}
