/** Whether keys and the clipboard are a field's or a dialog's just now, not the bench's. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  !!target.closest(
    'input:not([readonly], [type="checkbox"], [type="radio"]), textarea, select, [contenteditable], [role="dialog"], [role="slider"], [role="listbox"]',
  );
