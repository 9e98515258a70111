import type { PenTarget } from './penTarget';
import type { Hint } from './tool';

/** What lies under the pen, in the words of the table. */
const placesUnder = {
  place: 'nothing',
  node: 'a node of another line',
  segment: 'another line',
  drop: 'the last node',
  close: 'the first node',
  continue: 'an open end on this sheet',
  join: 'an open end on this sheet',
  'add node': 'a chosen line',
  'remove node': 'a node of a chosen line',
} as const satisfies Record<PenTarget['on'], string>;

type Row = {
  /** Whether a line is being drawn. */
  readonly while: 'idle' | 'drawing';
  readonly on: PenTarget['on'];
  readonly keys: 'click' | 'press and drag' | 'Alt click' | 'Alt press and drag' | 'Shift click' | 'Ctrl click';
  readonly what: string;
};

/**
 * What a press of the pen does, by what lies under it and what is held. No press changes another line than the one that is
 * being drawn, unless it is made with Alt, the pointer says so beforehand, and that line lies on the sheet in hand.
 */
const promise = {
  'start with a corner': { while: 'idle', on: 'place', keys: 'click', what: 'start with a corner' },
  'start with a curve': { while: 'idle', on: 'place', keys: 'press and drag', what: 'start with a curve' },
  'start on a node': { while: 'idle', on: 'node', keys: 'click', what: 'start a line on this node' },
  'curve from a node': { while: 'idle', on: 'node', keys: 'press and drag', what: 'with a curve' },
  'start on a line': { while: 'idle', on: 'segment', keys: 'click', what: 'start a line on this line' },
  'curve from a line': { while: 'idle', on: 'segment', keys: 'press and drag', what: 'with a curve' },
  'start beside a line': { while: 'idle', on: 'segment', keys: 'Ctrl click', what: 'start just here, keep to nothing' },
  'draw on': { while: 'idle', on: 'continue', keys: 'Alt click', what: 'draw on from this end' },
  'draw on anew': {
    while: 'idle',
    on: 'continue',
    keys: 'Alt press and drag',
    what: 'draw on with a handle drawn anew',
  },
  'add a node': { while: 'idle', on: 'add node', keys: 'Alt click', what: 'add a node here' },
  'take a node away': {
    while: 'idle',
    on: 'remove node',
    keys: 'Alt click',
    what: 'take this node away, keep the shape',
  },
  corner: { while: 'drawing', on: 'place', keys: 'click', what: 'corner' },
  curve: { while: 'drawing', on: 'place', keys: 'press and drag', what: 'curve' },
  'in steps': { while: 'drawing', on: 'place', keys: 'Shift click', what: 'in a direction of 15° steps' },
  'drop the handle': { while: 'drawing', on: 'drop', keys: 'click', what: 'drop the outgoing handle' },
  'draw the handle': { while: 'drawing', on: 'drop', keys: 'press and drag', what: 'draw it anew' },
  close: { while: 'drawing', on: 'close', keys: 'click', what: 'close the line' },
  'close with a curve': { while: 'drawing', on: 'close', keys: 'press and drag', what: 'close it with a curve' },
  'close straight': { while: 'drawing', on: 'close', keys: 'Alt click', what: 'close it straight' },
  'corner on a node': { while: 'drawing', on: 'node', keys: 'click', what: 'a corner on this node' },
  'curve on a node': { while: 'drawing', on: 'node', keys: 'press and drag', what: 'with a curve' },
  'corner on a line': { while: 'drawing', on: 'segment', keys: 'click', what: 'a corner on this line' },
  'curve on a line': { while: 'drawing', on: 'segment', keys: 'press and drag', what: 'with a curve' },
  'corner beside a line': { while: 'drawing', on: 'segment', keys: 'Ctrl click', what: 'just here, keep to nothing' },
  join: { while: 'drawing', on: 'join', keys: 'Alt click', what: 'join the two lines' },
  'join with a curve': { while: 'drawing', on: 'join', keys: 'Alt press and drag', what: 'join them with a curve' },
} as const satisfies Record<string, Row>;

export type PromiseId = keyof typeof promise;
export type PromiseRow = Row & { readonly id: PromiseId; readonly under: string };

/** The table, in the order in which it is shown. */
export const penPromise: readonly PromiseRow[] = Object.entries(promise).map(([id, row]) => ({
  id: id as PromiseId,
  under: placesUnder[row.on],
  ...row,
}));

/** What the table says of one place, as hints. */
export const promisedOn = (on: PenTarget['on'], isDrawing: boolean): Hint[] =>
  penPromise
    .filter((r) => r.on === on && (r.while === 'drawing') === isDrawing)
    .map(({ keys, what }) => ({ keys, what }));
