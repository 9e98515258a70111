import { icon } from '@/ui/icon';
import { NodesOptions } from '../../stages/refine/NodesOptions';
import { NodeDeeds } from '../../stages/refine/NodeDeeds';
import { NodesTool } from '../nodesTool';
import type { ToolDefinition } from '../definition';

export const nodes: ToolDefinition<'nodes'> = {
  id: 'nodes',
  label: 'Nodes',
  what: 'Nodes',
  key: 'd',
  keys: [
    { id: 'addNode', key: 'n', what: 'Nodes: add a node where the pointer is', press: 'n' },
    { id: 'cutHere', key: 'Shift n', what: 'Nodes: cut the line where the pointer is', press: 'cut' },
  ],
  icon: icon(
    <>
      <path d="M2 17C6 4 15 4 20 15" />
      <rect x="7" y="4" width="9" height="4" rx="2" fill="#f4c20d" strokeWidth="1" />
    </>,
  ),
  stages: ['trace', 'refine', 'colour'],
  options: NodesOptions,
  cards: NodeDeeds,
  make: (context) => new NodesTool(context),
};
