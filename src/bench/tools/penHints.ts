import type { Hint } from './tool';

/** What the pen's hand can do now, in its words for the tray. */

export const startHints: Hint[] = [
  { keys: 'click', what: 'start with a corner' },
  { keys: 'press and drag', what: 'start with a curve' },
  { keys: 'Space drag', what: 'pan' },
  { keys: 'wheel', what: 'zoom' },
  { keys: 'hold V', what: 'lift the reference away' },
];

/** On a sheet that is locked or hidden. */
export const refusedHints: Hint[] = [
  { keys: 'locked or hidden', what: 'the pen leaves this sheet alone; a click offers the way out' },
];

/** While the button is down. */
export const shapingHints = (closes: boolean): Hint[] => [
  { keys: 'drag', what: 'shape the curve' },
  { keys: 'Shift', what: 'hold to 15° steps' },
  { keys: 'Alt', what: closes ? 'turn only the way in' : 'turn only the way out' },
  ...(closes ? [] : [{ keys: 'Space', what: 'move the node itself' }]),
];

/** In the middle of a line, by what lies under the pointer. */
export const nextHints: Record<'place' | 'close' | 'drop', Hint[]> = {
  place: [
    { keys: 'click', what: 'corner' },
    { keys: 'press and drag', what: 'curve' },
    { keys: 'click the last node', what: 'drop its handle' },
    { keys: 'Backspace', what: 'take back a node' },
    { keys: 'click the first node', what: 'close' },
    { keys: 'Enter', what: 'end and keep' },
  ],
  close: [
    { keys: 'click', what: 'close the line' },
    { keys: 'press and drag', what: 'close it with a curve' },
  ],
  drop: [
    { keys: 'click', what: 'drop the outgoing handle' },
    { keys: 'press and drag', what: 'draw it anew' },
  ],
};
