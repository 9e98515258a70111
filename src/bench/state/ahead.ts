import { askPacked, type PackedDrawing } from './api';

/** What was asked for before the bench that reads it had come. */
let ahead: { id: string; answer: Promise<PackedDrawing> } | null = null;

/** Asks for a drawing that is about to be opened, unless it is `coming` already; what does not come so is asked for. */
export function askAhead(id: string, coming: Promise<PackedDrawing> | null = null): Promise<PackedDrawing> {
  const answer = coming?.catch(() => askPacked(id, true)) ?? askPacked(id, true);
  // Whoever takes it is told.
  answer.catch(() => undefined);
  ahead = { id, answer };
  return answer;
}

/** Whether it has been asked for, and nobody has taken it yet. */
export const isAhead = (id: string): boolean => ahead?.id === id;

/** The answer to that, once; null where it was not asked for. */
export function takeAhead(id: string): Promise<PackedDrawing> | null {
  if (ahead?.id !== id) return null;
  const { answer } = ahead;
  ahead = null;
  return answer;
}
