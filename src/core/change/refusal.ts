import { nodeCount } from '../drawing/find';
import { MOST_DEEP, type Item } from '../drawing/item';
import { isLine } from '../drawing/items';
import { changeSchema, type Change } from './change';
import { changeText } from './changeText';

/** The longest that a change may be as JSON, bytes: what it is sent in has a bound, with room for what goes around it. */
export const MOST_CHANGE_BYTES = 60 * 1024 * 1024;

/**
 * Why a change cannot be kept, as a sentence for whoever made it; null where it can. What is refused here would be refused
 * by the journal as well, when it would be too late to say so.
 */
export function refusalOf(change: Change): string | null {
  const parsed = changeSchema.safeParse(change);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    return wordsFor(issue.code, issue.path.map(String), issue.message);
  }
  if (mostBytes(change) <= MOST_CHANGE_BYTES) return null;
  return bytesOf(changeText(change)) > MOST_CHANGE_BYTES
    ? 'That is more than can be kept as one change. Do it in parts, a sheet at a time.'
    : null;
}

/** What a step that puts a line in takes at most, bytes, but for its runs and marks; and what each of these does. */
const MOST_OF = { line: 8_000, run: 50, node: 300, mark: 150 } as const;

/** What a change takes at most, bytes, as far as that is seen without writing it out: where it does no more than put lines in. */
export function mostBytes({ steps }: Change): number {
  let bytes = 0;
  for (const s of steps) {
    const item = s.step === 'insertItem' && (s.item as Item);
    if (!item || !isLine(item)) return Infinity;
    const { runs, marks } = item;
    bytes += MOST_OF.line + MOST_OF.run * runs.length + MOST_OF.node * nodeCount(item);
    bytes += MOST_OF.mark * (marks?.length ?? 0);
  }
  return bytes;
}

/** How long a text is when it is sent, bytes; the exact count only where the quick bounds do not tell. */
const bytesOf = (text: string): number =>
  text.length * 3 <= MOST_CHANGE_BYTES || text.length > MOST_CHANGE_BYTES
    ? text.length
    : new TextEncoder().encode(text).length;

const COORDINATES = ['point', 'in', 'out', 'at', 'part'];

function wordsFor(code: string, path: readonly string[], message: string): string {
  const isSize = code === 'too_big' || code === 'too_small';
  if (isSize && (path.at(-1) === 'x' || path.at(-1) === 'y' || COORDINATES.includes(path.at(-1)!)))
    return 'That would lie further out than a drawing reaches (10,000,000 px from the corner of the page).';
  if (path.at(-1) === 'kind' && path.filter((p) => p === 'items').length >= MOST_DEEP)
    return 'Groups can lie 20 deep in each other, and no deeper.';
  if (isSize && path.at(-1) === 'nodes') return 'A run holds at most 20,000 nodes.';
  if (isSize && path.at(-1) === 'runs') return 'A line holds at most 2,000 runs.';
  if (isSize && path.at(-1) === 'width') return 'A stroke is at most 10,000 px wide.';
  return `That cannot be kept in a drawing (${path.slice(-2).join(' ')}: ${message}).`;
}
