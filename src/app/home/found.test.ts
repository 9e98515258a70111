import type { DrawingCard } from '@/server/drawings';
import { found, type Order } from './found';

const card = (title: string, stage: string, createdAt: number, changedAt: number): DrawingCard => ({
  id: title,
  title,
  stage,
  revision: 1,
  createdAt,
  changedAt,
  binnedAt: null,
  sheets: 1,
  sheetsTraced: 0,
  lines: 0,
});
const cards = [
  card('Pear 10', 'trace', 1, 50),
  card('Pear 9', 'ink', 2, 40),
  card('Éclair', 'prepare', 3, 30),
  card('apple', 'trace', 4, 20),
];
const titles = (text: string, order: Order): string[] => found(cards, text, order).map((c) => c.title);

test.each<[Order, string[]]>([
  ['changed', ['Pear 10', 'Pear 9', 'Éclair', 'apple']],
  ['newest', ['apple', 'Éclair', 'Pear 9', 'Pear 10']],
  ['title', ['apple', 'Éclair', 'Pear 9', 'Pear 10']],
])('in the order %s', (order, expected) => expect(titles('', order)).toEqual(expected));

test('by words in any order, without regard to accents and case, and by stage', () => {
  expect(titles('9 pear', 'title')).toEqual(['Pear 9']);
  expect(titles('ECLAIR', 'title')).toEqual(['Éclair']);
  expect(titles('trace pe', 'title')).toEqual(['Pear 10']);
  expect(titles('quince', 'title')).toEqual([]);
  expect(cards.map((c) => c.title)[0]).toBe('Pear 10');
});
