/** Runs something once, when a key is let go of, or the window left. */
export function onKeyUp(run: () => void): void {
  const once = (): void => {
    window.removeEventListener('keyup', once);
    window.removeEventListener('blur', once);
    run();
  };
  window.addEventListener('keyup', once);
  window.addEventListener('blur', once);
}
