import { stageTable } from '../stages/table';
import { tools } from '../tools/registry';
import type { Command } from './command';
import type { Preferences } from '../state/preferences';

/** A row of the table. Rows with an `id` can be given other keys. */
export type KeyRow = { id?: string; keys: string; what: string; command?: Command };

/** `keys`: modifiers in the order Mod, Shift, then the key as `KeyboardEvent.key` in lower case. Mod is Ctrl or ⌘. */
export const keyTable: readonly { group: string; rows: readonly KeyRow[] }[] = [
  {
    group: 'Stages',
    rows: stageTable.map(({ id, label, key }): KeyRow => ({
      id,
      keys: key,
      what: label,
      command: { do: 'stage', stage: id },
    })),
  },
  {
    group: 'Tools',
    rows: [
      ...tools.flatMap(({ id, what, key, keys = [] }): KeyRow[] => [
        ...(key ? [{ id, keys: key, what, command: { do: 'tool' as const, tool: id } }] : []),
        ...keys.map((k): KeyRow => ({ id: k.id, keys: k.key, what: k.what, command: { do: 'toolKey', key: k.press } })),
      ]),
      { id: 'sway', keys: 'Shift z', what: 'Nodes: carry neighbours along', command: { do: 'switch', which: 'sway' } },
      { id: 'follow', keys: 'Shift f', what: 'Pen: follow the ink', command: { do: 'switch', which: 'follow' } },
      {
        id: 'straight',
        keys: 'Shift q',
        what: 'Pen: straight first',
        command: { do: 'switch', which: 'straightFirst' },
      },
      { id: 'snap', keys: 'Shift r', what: 'Draw nodes to other lines', command: { do: 'switch', which: 'snapLines' } },
    ],
  },
  {
    group: 'Pen and pencil',
    rows: [
      { keys: 'click', what: 'Pen: start a line, anywhere; then a corner' },
      { keys: 'drag', what: 'Pen: a node with a curve; Alt on the way turns one handle, Space moves the node' },
      {
        keys: 'Alt click',
        what: 'Pen: at an open end draw that line on, or join it; on a chosen line add a node, or take one away',
      },
      { keys: 'Mod click', what: 'Pen: keep to nothing that is there' },
      { keys: 'Shift click', what: 'Pen: in 15° steps' },
      { keys: 'Alt drag', what: 'Pencil: redraw the chosen line along the stroke' },
    ],
  },
  {
    group: 'View',
    rows: [
      { id: 'peek', keys: 'v', what: 'Hold: lift the reference away', command: { do: 'hold', shows: 'peek' } },
      {
        id: 'uncorrected',
        keys: 'x',
        what: 'Hold: see it as it was before',
        command: { do: 'hold', shows: 'uncorrected' },
      },
      { id: 'bareHold', keys: 'c', what: 'Hold: lift the lines away', command: { do: 'hold', shows: 'lifted' } },
      { id: 'squint', keys: 'y', what: 'Hold: squint, in a few greys', command: { do: 'hold', shows: 'squinting' } },
      { id: 'distance', keys: 'Shift 1', what: 'Distance from the ink', command: { do: 'switch', which: 'distance' } },
      { id: 'coverage', keys: 'Shift 2', what: 'Ink without a line', command: { do: 'switch', which: 'coverage' } },
      { id: 'comb', keys: 'Shift 3', what: 'How lines bend', command: { do: 'switch', which: 'comb' } },
      { id: 'flow', keys: 'Shift 4', what: 'How lines flow at nodes', command: { do: 'switch', which: 'flow' } },
      { id: 'bare', keys: 'b', what: 'Bare lines', command: { do: 'switch', which: 'bare' } },
      { id: 'draft', keys: 'Shift b', what: 'Draft colours', command: { do: 'switch', which: 'draft' } },
      { id: 'seeThrough', keys: 'Shift v', what: 'See-through fills', command: { do: 'switch', which: 'seeThrough' } },
      { id: 'loupe', keys: 'z', what: 'Loupe', command: { do: 'switch', which: 'loupe' } },
      { id: 'solo', keys: 'Shift s', what: 'See this sheet alone', command: { do: 'solo' } },
      { keys: 'space', what: 'Hold and drag: pan' },
      { keys: '+', what: 'Zoom in; in Ink, with lines chosen: wider strokes', command: { do: 'zoomIn' } },
      { keys: '-', what: 'Zoom out; in Ink, with lines chosen: thinner strokes', command: { do: 'zoomOut' } },
      { id: 'fit', keys: '0', what: 'Show the whole page', command: { do: 'fit' } },
      { id: 'actualSize', keys: 'Shift 0', what: '100 %', command: { do: 'actualSize' } },
    ],
  },
  {
    group: 'Choosing',
    rows: [
      { keys: 'Mod a', what: 'Choose all lines', command: { do: 'chooseAll' } },
      { keys: 'Mod Shift a', what: 'Choose none', command: { do: 'chooseNone' } },
      { id: 'invert', keys: 'Shift x', what: 'Choose the others instead', command: { do: 'invert' } },
      { id: 'alike', keys: 'Shift w', what: 'Choose alike', command: { do: 'alike' } },
      { keys: 'escape', what: 'Pen: end the line and keep it; else: let go of what is chosen' },
    ],
  },
  {
    group: 'Editing',
    rows: [
      { keys: 'Mod z', what: 'Undo', command: { do: 'undo' } },
      { keys: 'Mod Shift z', what: 'Redo', command: { do: 'redo' } },
      { keys: 'Mod y', what: 'Redo', command: { do: 'redo' } },
      { keys: 'Mod c', what: 'Copy' },
      { keys: 'Mod x', what: 'Cut' },
      { keys: 'Mod v', what: 'Paste at the pointer' },
      { keys: 'Mod Shift v', what: 'Paste in place' },
      { id: 'duplicate', keys: 'Shift d', what: 'Duplicate', command: { do: 'duplicate' } },
      { id: 'join', keys: 'r', what: 'Join two lines, or close one', command: { do: 'join' } },
      { id: 'group', keys: 'Shift g', what: 'Group', command: { do: 'group' } },
      { id: 'ungroup', keys: 'Shift t', what: 'Take a group apart', command: { do: 'ungroup' } },
      { id: 'forward', keys: 'Shift e', what: 'Move lines forward', command: { do: 'order', move: 'forward' } },
      { id: 'back', keys: 'Shift c', what: 'Move lines back', command: { do: 'order', move: 'back' } },
      { id: 'front', keys: 'Mod arrowup', what: 'Move lines to the front', command: { do: 'order', move: 'to front' } },
      {
        id: 'behind',
        keys: 'Mod arrowdown',
        what: 'Move lines to the back',
        command: { do: 'order', move: 'to back' },
      },
      { keys: 'arrows', what: 'Nudge what is chosen; with Shift ten times as far' },
      {
        keys: 'tab',
        what: 'To the page: arrows move a cross, with Shift finely; Space is the button; Alt with arrows nudges',
      },
      { keys: 'delete', what: 'Remove what is chosen' },
      { keys: 'backspace', what: 'Pen: take back the last node' },
      { keys: 'enter', what: 'Pen: end the line and keep it' },
      { id: 'keys', keys: '?', what: 'This list', command: { do: 'keys' } },
    ],
  },
];

const rows = keyTable.flatMap((g) => g.rows);
export const rowOf = (id: string): KeyRow => rows.find((r) => r.id === id)!;

/** What a person has changed of the keys. */
export type KeySettings = Pick<Preferences, 'keys' | 'mirrored'>;

const left = 'qwertasdfgzxcvb';
const right = 'poiuy;lkjh/.,mn';

/** The key on the other half of the board, for whoever draws with the left hand. */
function mirrored(keys: string): string {
  const parts = keys.split(' ');
  const at = left.indexOf(parts.at(-1)!);
  const back = right.indexOf(parts.at(-1)!);
  const other = at >= 0 ? right[at] : back >= 0 ? left[back] : parts.at(-1)!;
  return [...parts.slice(0, -1), other].join(' ');
}

/** The keys that a row has: those a person gave it, or else its own. */
export const keysOf = (row: KeyRow, s: KeySettings): string =>
  (row.id && s.keys[row.id]) ?? (row.id && s.mirrored && !row.keys.startsWith('Mod') ? mirrored(row.keys) : row.keys);

/** The row that already has some keys, other than `id`'s own. */
export const conflictOf = (keys: string, id: string, s: KeySettings): KeyRow | undefined =>
  rows.find((r) => r.id !== id && keysOf(r, s) === keys);

let known: { settings: KeySettings; commands: Map<string, Command> } | null = null;

function commandsFor(s: KeySettings): Map<string, Command> {
  if (known?.settings.keys !== s.keys || known.settings.mirrored !== s.mirrored) {
    const isOwn = (r: KeyRow): boolean => r.id !== undefined && s.keys[r.id] !== undefined;
    // A key that a person has given counts before one that a later program has: the last in the map stays.
    const ordered = [...rows.toReversed().filter((r) => !isOwn(r)), ...rows.toReversed().filter(isOwn)];
    const list = ordered.flatMap((r) => (r.command ? [[keysOf(r, s), r.command] as const] : []));
    known = { settings: { keys: s.keys, mirrored: s.mirrored }, commands: new Map(list) };
  }
  return known.commands;
}

type Press = Pick<KeyboardEvent, 'key' | 'code' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>;

/** How a press of keys is written in the table; null for one that cannot stand there (Alt, or a modifier alone). */
export function keysPressed(e: Press): string | null {
  if (e.altKey || ['Shift', 'Control', 'Meta', 'Alt', 'Dead', 'CapsLock'].includes(e.key)) return null;
  const mod = e.ctrlKey || e.metaKey ? 'Mod ' : '';
  // Digits by their place, for with Shift they are other signs, which differ from board to board.
  const digit = /^Digit(\d)$/.exec(e.code ?? '')?.[1];
  if (digit && (e.shiftKey || /^\d$/.test(e.key))) return `${mod}${e.shiftKey ? 'Shift ' : ''}${digit}`;
  const key = e.key === '=' ? '+' : e.key === ' ' ? 'space' : e.key.toLowerCase();
  // Signs that need Shift on some keyboards stand for themselves.
  const shift = e.shiftKey && (/^[a-z]$/.test(key) || key.length > 1) ? 'Shift ' : '';
  return `${mod}${shift}${key}`;
}

/** The command that a press of keys stands for. */
export function commandFor(e: Press, s: KeySettings): Command | undefined {
  const keys = keysPressed(e);
  return keys === null ? undefined : commandsFor(s).get(keys);
}

/** How a key is written on its cap for a person. */
export function keyCaps(keys: string, isMac = false): string[] {
  const names: Record<string, string> = { Mod: isMac ? '⌘' : 'Ctrl', '-': '−', arrowup: '↑', arrowdown: '↓' };
  return keys.split(' ').map((k) => names[k] ?? (k.length === 1 ? k.toUpperCase() : k[0].toUpperCase() + k.slice(1)));
}
