import type { Point } from '@/core';
import { pointIn } from './pointIn';

/** Where the pointer is over an element, CSS px of it; null while it is elsewhere. */
export class PointerPlace {
  at: Point | null = null;
  private readonly stop = new AbortController();

  constructor(element: HTMLElement, onNews: () => void) {
    const { signal } = this.stop;
    const set = (at: Point | null): void => {
      this.at = at;
      onNews();
    };
    element.addEventListener('pointermove', (e) => set(pointIn(element, e)), { signal });
    element.addEventListener('pointerleave', () => set(null), { signal });
  }

  dispose(): void {
    this.stop.abort();
  }
}
