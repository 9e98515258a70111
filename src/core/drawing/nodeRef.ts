import { findLine } from './find';
import type { Drawing, Node } from './schema';

/** Names one node: its line, which of the line's runs, and its place in the run. */
export type NodeRef = { readonly line: string; readonly run: number; readonly node: number };

export const nodeKey = (r: NodeRef): string => `${r.line}:${r.run}:${r.node}`;
export function nodeOfKey(key: string): NodeRef {
  const [line, run, node] = key.split(':');
  return { line, run: Number(run), node: Number(node) };
}

export const nodeAt = (d: Drawing, ref: NodeRef): Node | undefined =>
  findLine(d, ref.line)?.line.runs[ref.run]?.nodes[ref.node];
