import type { Bench, Message } from '../state/store';

/** Tells why something is not done; the nothing that came of it. */
export function tellOf(bench: Bench, text: string, tone: Message['tone'] = 'note'): null {
  bench.tell(text, undefined, tone);
  return null;
}
