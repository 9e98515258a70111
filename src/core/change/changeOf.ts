import type { Node, Run } from '../drawing/schema';
import type { Change, Step } from './change';
import type { Edit } from './edit';
import { stepOnGrid } from './onGrid';
import { isSame } from './steps/sides';

/** An edit as the change that is made: what it makes lies on the grid, and it says no more than what differs. */
export const changeOf = (edit: Edit, id: string): Change => ({
  id,
  label: edit.label,
  steps: edit.steps.flatMap((s) => compact(stepOnGrid(s, false))),
});

/** Of the nodes on both sides, those that differ must be fewer than this share for it to be worth while to send just them. */
const FEW = 0.6;

/** A line's runs set anew, as the few nodes of one run that differ. */
function compact(s: Step): Step[] {
  if (s.step !== 'setLine' || !s.before.runs || !s.after.runs) return [s];
  const { runs: before, ...restBefore } = s.before;
  const { runs: after, ...restAfter } = s.after;
  const part = differing(before as readonly Run[], after as readonly Run[]);
  if (!part) return [s];
  const { sheet, id } = s;
  const rest: Step = { step: 'setLine', sheet, id, before: restBefore, after: restAfter };
  return [{ step: 'setNodes', sheet, id, ...part }, ...(Object.keys(restAfter).length > 0 ? [rest] : [])];
}

/** The one stretch of nodes in which runs differ; null where they differ otherwise, or in most of them. */
function differing(
  before: readonly Run[],
  after: readonly Run[],
): { run: number; at: number; before: readonly Node[]; after: readonly Node[] } | null {
  if (before.length !== after.length) return null;
  const others = before.flatMap((r, i) => (isSame(r, after[i]) ? [] : [i]));
  if (others.length !== 1) return null;
  const [run] = others;
  const [old, next] = [before[run], after[run]];
  if (old.closed !== next.closed) return null;
  const shorter = Math.min(old.nodes.length, next.nodes.length);
  let at = 0;
  while (at < shorter && isSame(old.nodes[at], next.nodes[at])) at++;
  let back = 0;
  while (back < shorter - at && isSame(old.nodes.at(-1 - back), next.nodes.at(-1 - back))) back++;
  const [was, is] = [old.nodes.slice(at, old.nodes.length - back), next.nodes.slice(at, next.nodes.length - back)];
  const isFew = was.length + is.length < FEW * (old.nodes.length + next.nodes.length);
  return isFew ? { run, at, before: was, after: is } : null;
}
