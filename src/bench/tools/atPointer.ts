import { nanoid } from 'nanoid';
import { cutAtNode, cutSegment } from '@/core/edits/cut';
import { addNode } from '@/core/edits/nodes';
import { nodeKey } from '@/core/drawing/nodeRef';
import { findLine } from '@/core/drawing/find';
import { gripFor, LINE_GRIP, type HandEvent, type ToolContext } from './tool';

/** What keys do to the line under the pointer. They need not be as near to it as a press. */
const reachOf = (context: ToolContext, e: HandEvent): number => gripFor(e, 2 * LINE_GRIP) * context.unit();

/** Puts a node on the line under the pointer, and chooses it. */
export function addAtPointer(context: ToolContext, e: HandEvent): void {
  const { bench, picking } = context;
  const { drawing } = bench.getState();
  const hit = picking.nearest(drawing, e.page, reachOf(context, e));
  if (!hit) {
    bench.tell('There is no line under the pointer to put a node on.');
    return;
  }
  bench.commit(addNode(drawing, hit.line, hit.run, hit.segment, hit.t));
  bench.choose([hit.line.id], [nodeKey({ line: hit.line.id, run: hit.run, node: hit.segment + 1 })]);
}

/** Cuts at the node under the pointer, or else at the place on a segment; chooses both parts. */
export function cutAtPointer(context: ToolContext, e: HandEvent): void {
  const { bench, picking } = context;
  const { drawing } = bench.getState();
  const node = picking.nearestNode(drawing, e.page, reachOf(context, e) / 2);
  const hit = node ? null : picking.nearest(drawing, e.page, reachOf(context, e));
  if (!node && !hit) {
    bench.tell('There is no line under the pointer to cut.');
    return;
  }
  const fresh = nanoid(10);
  const cut = node
    ? cutAtNode(drawing, { line: node.line.id, run: node.run, node: node.node }, fresh)
    : cutSegment(drawing, { line: hit!.line.id, run: hit!.run, segment: hit!.segment }, hit!.t, fresh);
  bench.commit(cut, null, 'A line cannot be cut at its end.');
  bench.choose([(node ?? hit)!.line.id, fresh].filter((id) => findLine(bench.getState().drawing, id)));
}
