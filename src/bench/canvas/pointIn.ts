import type { Point } from '@/core';

const boxes = new WeakMap<Element, DOMRect>();

/**
 * Where a pointer is within an element, CSS px. During a drag the element counts as lying where it lay before: to ask
 * anew would have all that is written elsewhere with each move laid out at once.
 */
export function pointIn(element: Element, e: PointerEvent | WheelEvent): Point {
  const isDrag = e.type === 'pointermove' && e.buttons !== 0;
  let box = isDrag ? boxes.get(element) : undefined;
  if (!box) boxes.set(element, (box = element.getBoundingClientRect()));
  return { x: e.clientX - box.left, y: e.clientY - box.top };
}
