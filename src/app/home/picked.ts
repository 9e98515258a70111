/** What is picked of a list after a press on one of it: it alone is turned, or with `through` all from `last` up to it. */
export function pickedAfter(
  picked: ReadonlySet<string>,
  shown: readonly string[],
  id: string,
  last: string | null,
  through: boolean,
): Set<string> {
  const next = new Set(picked);
  const [from, to] = [last === null ? -1 : shown.indexOf(last), shown.indexOf(id)];
  const run = through && from >= 0 && to >= 0 ? shown.slice(Math.min(from, to), Math.max(from, to) + 1) : [id];
  const isOn = !picked.has(id);
  for (const one of run) {
    if (isOn) next.add(one);
    else next.delete(one);
  }
  return next;
}
