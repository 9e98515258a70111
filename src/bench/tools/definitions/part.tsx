import { icon } from '@/ui/icon';
import { PartTool } from '../partTool';
import type { ToolDefinition } from '../definition';

export const part: ToolDefinition<'part'> = {
  id: 'part',
  label: 'Part',
  what: 'Part',
  icon: icon(
    <>
      <rect x="4" y="4" width="14" height="12" rx="1" strokeDasharray="3 2.200" />
      <path d="M4 19h8" strokeWidth="3" stroke="#f4c20d" />
    </>,
  ),
  stages: ['prepare'],
  make: (context) => new PartTool(context),
};
