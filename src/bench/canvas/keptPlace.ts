/** Tells how far an element has gone to the left since it was asked last: the page keeps its place on the screen by that. */
export function leftwards(element: Element): () => number {
  let last = element.getBoundingClientRect().left;
  return () => {
    const before = last;
    last = element.getBoundingClientRect().left;
    return before - last;
  };
}
