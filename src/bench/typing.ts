/** Whether keys and the clipboard are a field's or a dialog's just now, not the bench's. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  !!target.closest(
    'input:not([readonly], [type="checkbox"], [type="radio"], [type="range"]), textarea, select, [contenteditable], [role="dialog"], [role="listbox"]',
  );

/** What Enter presses. */
const PRESSED = 'button, [role="button"], [role="combobox"], [role="tree"], a';
/** What these keys move along: sliders, and choices of one among several. */
const MOVED = '[role="slider"], input, [role="combobox"], [role="tree"], [role="tablist"], [role="radiogroup"]';
const MOVES = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Home', 'End', 'PageUp', 'PageDown'];

/** Whether a key is for the control that has the focus. All others are the bench's, whatever was touched last. */
export const isForControl = (target: EventTarget | null, key: string): boolean =>
  target instanceof Element &&
  ((key === 'Enter' && !!target.closest(PRESSED)) || (MOVES.includes(key) && !!target.closest(`${MOVED}, ${PRESSED}`)));
