import { mkdirSync } from 'node:fs';
import path from 'node:path';

/** The one folder in which everything is kept: `YELLOW_QUILL_DATA`, or `data/` where the program was started. */
export const dataFolder = (): string => path.resolve(/*turbopackIgnore: true*/ process.env.YELLOW_QUILL_DATA ?? 'data');

/** A folder inside the data folder, made when it is not there. Names come from the program, never from a request. */
export function folder(...names: string[]): string {
  const place = path.join(dataFolder(), ...names);
  mkdirSync(place, { recursive: true });
  return place;
}
