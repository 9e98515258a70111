import { createStore } from 'zustand/vanilla';

/** What last pressed: a mouse, or a finger or pen, which has no keys beside it and needs more room. */
export type PointerKind = 'fine' | 'coarse';

export const pointerKind = createStore<{ kind: PointerKind }>(() => ({ kind: 'fine' }));

/** Follows what presses anywhere in the window, and says it on the page's root, for the styles. */
export function followPointerKind(): () => void {
  const show = (): void => void (document.documentElement.dataset.pointer = pointerKind.getState().kind);
  pointerKind.setState({ kind: matchMedia('(pointer: coarse)').matches ? 'coarse' : 'fine' });
  show();
  const hear = ({ pointerType }: PointerEvent): void => {
    const kind = pointerType === 'mouse' ? 'fine' : 'coarse';
    if (kind !== pointerKind.getState().kind) pointerKind.setState({ kind });
  };
  window.addEventListener('pointerdown', hear, true);
  const stop = pointerKind.subscribe(show);
  return () => {
    window.removeEventListener('pointerdown', hear, true);
    stop();
  };
}
