import type { Page, Reference } from '..';
import { placedReference } from '../edits/references';

/** A made-up picture of so many px, laid on a page as a new one is. */
export const laidReference = (page: Page, pixelWidth: number, pixelHeight: number): Reference =>
  placedReference(page, { id: 'r', name: 'scan', picture: 'a'.repeat(64), pixelWidth, pixelHeight, dpi: null });
