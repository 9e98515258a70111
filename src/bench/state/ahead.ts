import { askPacked, type PackedDrawing } from './api';

/** What was asked for before the bench that reads it had come. */
let ahead: { id: string; answer: Promise<PackedDrawing>; at: number } | null = null;

/** A page that is on its way may be begun anew: so long its answer is asked for once, ms. */
const ONE_OPENING_MS = 2_000;

/** Asks for a drawing that is about to be opened. */
export function askAhead(id: string): Promise<PackedDrawing> {
  if (ahead?.id === id && performance.now() - ahead.at < ONE_OPENING_MS) return ahead.answer;
  const answer = askPacked(id, true);
  // Whoever takes it is told.
  answer.catch(() => undefined);
  ahead = { id, answer, at: performance.now() };
  return answer;
}

/** The answer to that, once; null where it was not asked for. */
export function takeAhead(id: string): Promise<PackedDrawing> | null {
  const taken = ahead?.id === id ? ahead.answer : null;
  ahead = null;
  return taken;
}
