import type { SvgElement } from './tree';

/** What an element is called. */
export const titleOf = (e: SvgElement): string =>
  (e.children.find((c) => c.name === 'title')?.text ?? '').trim().replace(/\s+/g, ' ').slice(0, 200);
