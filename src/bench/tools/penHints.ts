import { dot, lengthOf, subtract } from '@/core/geometry/point';
import type { Gesture } from './penGesture';
import type { Current, PenTarget } from './penTarget';
import type { HandEvent, Hint, PointerShape } from './tool';
import { preferences } from '../state/preferences';

/** What the pen's hand can do now, in its words for the tray. */

const start: Hint[] = [
  { keys: 'click', what: 'start with a corner' },
  { keys: 'press and drag', what: 'start with a curve' },
  { keys: 'an open end', what: 'draw on from there' },
  { keys: 'Space drag', what: 'pan' },
  { keys: 'hold V', what: 'lift the reference away' },
];

const next: Hint[] = [
  { keys: 'click', what: 'corner' },
  { keys: 'press and drag', what: 'curve' },
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

const over: Record<Exclude<PenTarget['on'], 'place'>, Hint[]> = {
  close: [
    { keys: 'click', what: 'close the line' },
    { keys: 'press and drag', what: 'close it with a curve' },
    { keys: 'Alt click', what: 'close it straight' },
  ],
  drop: [
    { keys: 'click', what: 'drop the outgoing handle' },
    { keys: 'press and drag', what: 'draw it anew' },
  ],
  continue: [
    { keys: 'click', what: 'draw on from this end' },
    { keys: 'press and drag', what: 'draw on with a handle drawn anew' },
  ],
  join: [
    { keys: 'click', what: 'join this line' },
    { keys: 'press and drag', what: 'join it with a curve' },
    { keys: 'Alt click', what: 'join it straight' },
    { keys: 'Ctrl', what: 'leave it alone' },
  ],
  node: [
    { keys: 'click', what: 'on this node' },
    { keys: 'press and drag', what: 'with a curve' },
    { keys: 'Ctrl', what: 'keep to nothing' },
  ],
  segment: [
    { keys: 'click', what: 'on this line' },
    { keys: 'press and drag', what: 'with a curve' },
    { keys: 'Ctrl', what: 'keep to nothing' },
  ],
  'add node': [
    { keys: 'click', what: 'add a node here' },
    { keys: 'Ctrl click', what: 'start a line on it' },
  ],
  'remove node': [
    { keys: 'click', what: 'take this node away, keep the shape' },
    { keys: 'Ctrl click', what: 'start a line on it' },
  ],
};

/** While the button is down. */
const shaping = (g: Gesture): Hint[] => {
  if (preferences.getState().straightFirst && 'node' in g)
    return [
      { keys: 'drag', what: 'move the node' },
      { keys: 'Shift', what: 'hold to 15° steps' },
    ];
  const isFar = g.for === 'close' || g.for === 'join';
  return [
    { keys: 'drag', what: 'shape the curve' },
    { keys: 'Shift', what: 'hold to 15° steps' },
    { keys: 'Alt', what: isFar ? 'turn only the way in' : 'turn only the way out' },
    ...(isFar ? [] : [{ keys: 'Space', what: 'move the node itself' }]),
  ];
};

/** Whether the outgoing handle leads away from where the pen points: the curve would have to turn back on itself. */
export function pointsAway({ nodes }: Current, at: HandEvent | null): boolean {
  const last = nodes.at(-1)!;
  if (!at || !last.out) return false;
  const way = subtract(at.page, last.point);
  const far = lengthOf(way) > 0.3 * lengthOf(last.out);
  return far && dot(way, last.out) < Math.cos((100 * Math.PI) / 180) * lengthOf(way) * lengthOf(last.out);
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
    if (target && target.on !== 'place') return over[target.on];
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
