import type { Preferences } from '@/bench/state/preferences';
import type { DrawingCard } from '@/server/drawings';

export type Order = Preferences['homeOrder'];
export const orders: Record<Order, string> = {
  changed: 'last changed first',
  newest: 'newest first',
  title: 'by title',
};

const byTitle = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });
const plain = (text: string): string => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();

/** The cards whose titles or stages hold all words of a text, in an order. */
export function found(cards: readonly DrawingCard[], text: string, order: Order): DrawingCard[] {
  const words = plain(text).split(/\s+/).filter(Boolean);
  const own = cards.filter(({ title, stage }) => {
    const hay = `${plain(title)} ${stage}`;
    return words.every((w) => hay.includes(w));
  });
  const compare: Record<Order, (a: DrawingCard, b: DrawingCard) => number> = {
    changed: (a, b) => b.changedAt - a.changedAt,
    newest: (a, b) => b.createdAt - a.createdAt,
    title: (a, b) => byTitle.compare(a.title, b.title),
  };
  return own.sort(compare[order]);
}
