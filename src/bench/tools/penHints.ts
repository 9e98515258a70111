import { dot, lengthOf, subtract } from '@/core/geometry/point';
import type { Gesture, NodeGesture } from './penGesture';
import { promisedOn } from './penPromise';
import type { Current, PenTarget, TakenUp } from './penTarget';
import type { HandEvent, Hint, PointerShape } from './tool';
import { preferences } from '../state/preferences';

/** What the pen's hand can do now, in its words for the tray. */

const start: Hint[] = [
  ...promisedOn('place', false),
  { keys: 'Alt click an open end', what: 'draw on from there' },
  { keys: 'Space drag', what: 'pan' },
  { keys: 'hold V', what: 'lift the reference away' },
];

const next: Hint[] = [
  ...promisedOn('place', true).slice(0, 2),
  { keys: 'click the last node', what: 'drop its handle' },
  { keys: 'Backspace', what: 'take back a node' },
  { keys: 'click the first node', what: 'close' },
  { keys: 'Enter', what: 'end and keep' },
];

const nextStraight: Hint[] = [
  { keys: 'click', what: 'lay a straight segment; bend it later with F' },
  { keys: 'Shift', what: 'hold to 15° steps' },
  { keys: 'Backspace', what: 'take back a node' },
  { keys: 'click the first node', what: 'close' },
  { keys: 'Enter', what: 'end and keep' },
];

/** What Alt would do to the line under the pen. */
const withAlt: Record<TakenUp['on'], Hint> = {
  continue: { keys: 'Alt click', what: 'draw that line on instead' },
  join: { keys: 'Alt click', what: 'join the two lines' },
  'add node': { keys: 'Alt click', what: 'add a node to it' },
  'remove node': { keys: 'Alt click', what: 'take this node away, keep the shape' },
};

/** On a line that is there: a node is laid on it, and nothing of it changes. */
const onLine = ({ on, withAlt: taken }: Extract<PenTarget, { on: 'node' | 'segment' }>, isDrawing: boolean): Hint[] => {
  const [click, drag] = promisedOn(on, isDrawing);
  return [click, drag, ...(taken ? [withAlt[taken]] : []), { keys: 'Ctrl', what: 'keep to nothing' }];
};

/** While the button is down. */
const shaping = (g: NodeGesture): Hint[] => {
  if (preferences.getState().straightFirst)
    return [
      { keys: 'drag', what: 'move the node' },
      { keys: 'Shift', what: 'hold to 15° steps' },
    ];
  const alone: Record<typeof g.for, string | null> = {
    start: 'turn only the way out',
    add: 'turn only the way out',
    close: 'turn only the way in',
    join: null,
  };
  const isFar = g.for === 'close' || g.for === 'join';
  return [
    { keys: 'drag', what: 'shape the curve' },
    { keys: 'Shift', what: 'hold to 15° steps' },
    ...(alone[g.for] ? [{ keys: 'Alt', what: alone[g.for]! }] : []),
    ...(isFar ? [] : [{ keys: 'Space', what: 'move the node itself' }]),
  ];
};

/** Whether the outgoing handle leads away from where the pen points: the curve would have to turn back on itself. */
export function pointsAway({ nodes }: Current, at: HandEvent | null): boolean {
  const last = nodes.at(-1)!;
  if (!at || !last.out) return false;
  const direction = subtract(at.page, last.point);
  const far = lengthOf(direction) > 0.3 * lengthOf(last.out);
  return far && dot(direction, last.out) < Math.cos((100 * Math.PI) / 180) * lengthOf(direction) * lengthOf(last.out);
}

export const penHints = {
  /** On a sheet that is locked or hidden. */
  refused: [{ keys: 'locked or hidden', what: 'the pen leaves this sheet alone; a click offers the way out' }],

  /** While the picture is made ready to be followed. */
  preparing: [
    { keys: 'a moment', what: 'the ink is being made ready; until then the pen is its plain self' },
  ] as Hint[],

  /** With a curve along the ink at hand. */
  follow: [
    { keys: 'click', what: 'take the curve along the ink' },
    { keys: 'Shift click', what: 'a straight segment' },
    { keys: 'Backspace', what: 'take back a node' },
    { keys: 'click the first node', what: 'close' },
    { keys: 'Escape', what: 'the plain pen again' },
    { keys: 'Enter', what: 'end and keep' },
  ] as Hint[],

  for(g: Gesture | null, target: PenTarget | null, current: Current | null, at: HandEvent | null): Hint[] {
    if (g && 'node' in g) return shaping(g);
    if (target?.on === 'node' || target?.on === 'segment') return onLine(target, current !== null);
    if (target && target.on !== 'place') return promisedOn(target.on, current !== null);
    if (!current) return start;
    if (pointsAway(current, at))
      return [
        { keys: 'the handle points away', what: 'click the last node to drop it, or drag there to turn it' },
        ...next.slice(0, 2),
      ];
    return preferences.getState().straightFirst ? nextStraight : next;
  },
};

/** The pen's pointer by what lies under it. */
export function penPointer(target: PenTarget | null, drawing: boolean): PointerShape {
  switch (target?.on) {
    case 'close':
      return 'pen close';
    case 'drop':
      return 'pen drop';
    case 'continue':
    case 'join':
      return 'pen join';
    case 'node':
    case 'segment':
      return 'pen touch';
    case 'add node':
      return 'pen node in';
    case 'remove node':
      return 'pen node out';
    default:
      return drawing ? 'pen add' : 'pen start';
  }
}
