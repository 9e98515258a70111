import type { StageId, ToolId } from './store';

/** What keys do. This table is the one place that knows; the bench and the list of keys both read it. */
export type Command =
  | { do: 'tool'; tool: ToolId }
  | { do: 'stage'; stage: StageId }
  | { do: 'undo' | 'redo' | 'zoomIn' | 'zoomOut' | 'fit' | 'actualSize' | 'chooseAll' | 'keys' };

export type KeyRow = { keys: string; what: string; command?: Command };

/** `keys`: modifiers in the order Mod, Shift, then the key as `KeyboardEvent.key` in lower case. Mod is Ctrl or ⌘. */
export const keyTable: readonly { group: string; rows: readonly KeyRow[] }[] = [
  {
    group: 'Stages',
    rows: [
      { keys: '1', what: 'Prepare', command: { do: 'stage', stage: 'prepare' } },
      { keys: '2', what: 'Trace', command: { do: 'stage', stage: 'trace' } },
      { keys: '3', what: 'Refine', command: { do: 'stage', stage: 'refine' } },
      { keys: '4', what: 'Ink', command: { do: 'stage', stage: 'ink' } },
      { keys: '6', what: 'Deliver', command: { do: 'stage', stage: 'deliver' } },
    ],
  },
  {
    group: 'Tools',
    rows: [
      { keys: 'a', what: 'Pen', command: { do: 'tool', tool: 'pen' } },
      { keys: 's', what: 'Select lines', command: { do: 'tool', tool: 'select' } },
      { keys: 'd', what: 'Nodes', command: { do: 'tool', tool: 'nodes' } },
      { keys: 'n', what: 'Nodes: add a node where the pointer is' },
    ],
  },
  {
    group: 'View',
    rows: [
      { keys: 'v', what: 'Hold: lift the reference away' },
      { keys: 'x', what: 'Hold: see the reference before its tones were corrected' },
      { keys: 'space', what: 'Hold and drag: pan' },
      { keys: '+', what: 'Zoom in', command: { do: 'zoomIn' } },
      { keys: '-', what: 'Zoom out', command: { do: 'zoomOut' } },
      { keys: '0', what: 'Show the whole page', command: { do: 'fit' } },
      { keys: 'Shift 0', what: '100 %', command: { do: 'actualSize' } },
    ],
  },
  {
    group: 'Editing',
    rows: [
      { keys: 'Mod z', what: 'Undo', command: { do: 'undo' } },
      { keys: 'Mod Shift z', what: 'Redo', command: { do: 'redo' } },
      { keys: 'Mod y', what: 'Redo', command: { do: 'redo' } },
      { keys: 'Mod a', what: 'Choose all lines', command: { do: 'chooseAll' } },
      { keys: 'arrows', what: 'Nudge what is chosen; with Shift ten times as far' },
      { keys: 'delete', what: 'Remove what is chosen' },
      { keys: 'backspace', what: 'Pen: take back the last node' },
      { keys: 'enter', what: 'Pen: end the line and keep it' },
      { keys: 'escape', what: 'Pen: end the line and keep it; else: let go of what is chosen' },
      { keys: '?', what: 'This list', command: { do: 'keys' } },
    ],
  },
];

const commands = new Map(
  keyTable.flatMap((g) => g.rows).flatMap((r) => (r.command ? [[r.keys, r.command] as const] : [])),
);

/** The command that a press of keys stands for. */
export function commandFor(
  e: Pick<KeyboardEvent, 'key' | 'code' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>,
): Command | undefined {
  if (e.altKey) return undefined;
  const mod = e.ctrlKey || e.metaKey ? 'Mod ' : '';
  if (e.shiftKey && e.code === 'Digit0') return commands.get('Shift 0');
  const key = e.key === '=' ? '+' : e.key.toLowerCase();
  // Signs that need Shift on some keyboards stand for themselves.
  const shift = e.shiftKey && /^[a-z]$/.test(key) ? 'Shift ' : '';
  return commands.get(`${mod}${shift}${key}`);
}

/** How a key is written on its cap for a person. */
export function keyCaps(keys: string, isMac = false): string[] {
  const names: Record<string, string> = { Mod: isMac ? '⌘' : 'Ctrl', '-': '−' };
  return keys.split(' ').map((k) => names[k] ?? (k.length === 1 ? k.toUpperCase() : k[0].toUpperCase() + k.slice(1)));
}
