import { nanoid } from 'nanoid';
import { logError } from '../log';
import { notFound, Problem } from '../problem';
import { PaperJam, type ScanOptions, type Scanner } from './scanner';
import { SimulatedScanner } from './simulatedScanner';

/** A scan that was asked for: under way, done, or ended with a reason. */
type Scan = {
  state: 'scanning' | 'done' | 'failed' | 'stopped';
  progress: number;
  why: string | null;
  picture: Buffer | null;
  stop: AbortController;
};

const MOST_KEPT = 8;

const kept = globalThis as typeof globalThis & { yellowQuillScans?: { scanner: Scanner; scans: Map<string, Scan> } };

const devices = () =>
  (kept.yellowQuillScans ??= {
    scanner: new SimulatedScanner(Number(process.env.YELLOW_QUILL_SCANNER_PACE ?? 1)),
    scans: new Map(),
  });

export const scannerInUse = (): Scanner => devices().scanner;

/**
 * Begins a scan and gives its id.
 * @throws Problem 404 for a page that is not there, 409 while another scan is under way.
 */
export async function beginScan(options: ScanOptions): Promise<string> {
  const { scanner, scans } = devices();
  if (!(await scanner.pages()).some((p) => p.id === options.page)) throw notFound('page in the scanner');
  if ([...scans.values()].some((s) => s.state === 'scanning'))
    throw new Problem(409, 'busy', 'The scanner is at work. Wait for it, or stop it.');
  const id = nanoid(10);
  const scan: Scan = { state: 'scanning', progress: 0, why: null, picture: null, stop: new AbortController() };
  scans.set(id, scan);
  if (scans.size > MOST_KEPT) scans.delete(scans.keys().next().value!);
  scanner
    .scan(options, (share) => (scan.progress = share), scan.stop.signal)
    .then((picture) => Object.assign(scan, { state: 'done', progress: 1, picture }))
    .catch((error: unknown) => {
      if (scan.stop.signal.aborted) return Object.assign(scan, { state: 'stopped' });
      if (!(error instanceof PaperJam)) logError(error);
      const why =
        error instanceof PaperJam
          ? 'The paper is stuck in the scanner. Nothing was brought in; take the sheet out, smooth it, and try again.'
          : 'The scanner broke off. Nothing was brought in; try again.';
      return Object.assign(scan, { state: 'failed', why });
    });
  return id;
}

export function scanOf(id: string): Scan {
  const scan = devices().scans.get(id);
  if (!scan) throw notFound('scan');
  return scan;
}

/** Calls a scan off; one that is over is forgotten. */
export function stopScan(id: string): void {
  const scan = scanOf(id);
  scan.stop.abort();
  if (scan.state !== 'scanning') devices().scans.delete(id);
}
