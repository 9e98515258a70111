import { icon } from '@/ui/icon';
import { BendTool } from '../bendTool';
import type { ToolDefinition } from '../definition';

export const bend: ToolDefinition<'bend'> = {
  id: 'bend',
  label: 'Bend',
  what: 'Bend segments',
  key: 'f',
  icon: icon(
    <>
      <path d="M2 17h18" strokeWidth="1" strokeDasharray="2 2" />
      <path d="M2 17C7 5 15 5 20 17" />
      <circle cx="11" cy="8" r="2" fill="#f4c20d" strokeWidth="1" />
      <path d="M11 5.500V1.500M9.200 3.200L11 1.500l1.800 1.700" strokeWidth="1.200" />
    </>,
  ),
  stages: ['trace', 'refine'],
  make: (context) => new BendTool(context),
};
