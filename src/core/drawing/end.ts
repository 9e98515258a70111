import type { Point } from '../geometry/point';
import { findLine } from './find';
import { reversedNodes } from './run';
import type { Drawing, Node, Run } from './schema';

/** Names an open end: its line, which of the line's runs, and whether it is where that run starts. */
export type End = { readonly line: string; readonly run: number; readonly atStart: boolean };

/** The nodes of an open run in the order in which `end` is the last. */
export const towards = (run: Run, end: Pick<End, 'atStart'>): readonly Node[] =>
  end.atStart ? reversedNodes(run.nodes) : run.nodes;

/** Where an end is. */
export function endPoint(d: Drawing, end: End): Point | undefined {
  const nodes = findLine(d, end.line)?.line.runs[end.run]?.nodes;
  return (end.atStart ? nodes?.[0] : nodes?.at(-1))?.point;
}
