import { panned, type Size, type View } from '../state/view';

/** Gives views in which the page keeps its place on the screen, also when the element that shows it begins elsewhere. */
export function keptPlace(element: Element): (view: View) => View {
  let last = element.getBoundingClientRect().left;
  return (view) => {
    const x = last - element.getBoundingClientRect().left;
    last -= x;
    return x === 0 ? view : panned(view, { x, y: 0 });
  };
}

/** How large an element is, CSS px; at least one. */
export const sizeOf = (element: Element): Size => ({
  width: Math.max(1, element.clientWidth),
  height: Math.max(1, element.clientHeight),
});
