import type { PointerShape } from '../tools/tool';

/** Pointers of our own: a quill's point, with a sign beside it for what a press would do. */

const quill =
  '<path d="M2 2l5.5 13.5 2.6-5.4 5.4-2.6z" fill="#fffefb" stroke="#27241d" stroke-width="1.3" stroke-linejoin="round"/><path d="M2 2l6.4 6.4" stroke="#27241d" stroke-width="1"/>';
const sign = (shape: string) =>
  `<g fill="none" stroke="#fffefb" stroke-width="4" stroke-linecap="round">${shape}</g><g fill="none" stroke="#27241d" stroke-width="1.7" stroke-linecap="round">${shape}</g>`;

const svg = (content: string, x: number, y: number, fallback: string): string =>
  `url("data:image/svg+xml,${encodeURIComponent(`<svg xmlns="http://www.w3.org/2000/svg" width="28" height="28" viewBox="0 0 28 28">${content}</svg>`)}") ${x} ${y}, ${fallback}`;

export const cssPointer: Record<PointerShape, string> = {
  arrow: 'default',
  'over line': 'pointer',
  'over node': 'pointer',
  move: 'move',
  refuse: 'not-allowed',
  turn: svg(sign('<path d="M5 16a8 8 0 1 1 14 2"/><path d="M15 17.500l4.200 1 .8-4.300"/>'), 12, 12, 'grab'),
  'stretch across': 'ew-resize',
  'stretch down': 'ns-resize',
  'stretch falling': 'nwse-resize',
  'stretch rising': 'nesw-resize',
  'pen start': svg(quill + sign('<circle cx="20" cy="20" r="3.2"/>'), 2, 2, 'crosshair'),
  'pen add': svg(quill, 2, 2, 'crosshair'),
  'pen close': svg(
    quill + sign('<path d="M23.5 17.5a4.6 4.6 0 1 1-3.2-1.3"/><path d="M20.3 13.8v4.8"/>'),
    2,
    2,
    'crosshair',
  ),
  'pen drop': svg(quill + sign('<path d="M15.5 20h9"/>'), 2, 2, 'crosshair'),
  'pen join': svg(quill + sign('<path d="M14 20h4M21 20h4"/><circle cx="19.5" cy="20" r="1.6"/>'), 2, 2, 'crosshair'),
  'pen touch': svg(quill + sign('<path d="M14 23h11M19.500 23v-7"/>'), 2, 2, 'crosshair'),
  'pen node in': svg(quill + sign('<path d="M15.500 20h8M19.500 16v8"/>'), 2, 2, 'crosshair'),
  'pen node out': svg(quill + sign('<path d="M16.500 17l6 6M22.500 17l-6 6"/>'), 2, 2, 'crosshair'),
  pencil: svg(
    '<path d="M2 2l3 8L18 23l5-5L10 5z" fill="#fffefb" stroke="#27241d" stroke-width="1.3" stroke-linejoin="round"/><path d="M2 2l3 8 5-5z" fill="#27241d"/>',
    2,
    2,
    'crosshair',
  ),
  bend: svg(
    sign('<path d="M4 14c4-9 12-9 16 0"/><path d="M12 8v-6M9.500 4.500L12 2l2.500 2.500"/>'),
    12,
    8,
    'crosshair',
  ),
  swell: svg(
    sign('<path d="M3 12h18"/><path d="M12 8V2M9.500 4.500L12 2l2.500 2.500M12 16v6M9.500 19.500L12 22l2.500-2.500"/>'),
    12,
    12,
    'crosshair',
  ),
  shape: svg(sign('<path d="M10 3v14M3 10h14"/>'), 10, 10, 'crosshair'),
};
