import { icon } from '@/ui/icon';
import { SelectOptions } from '../../stages/trace/SelectOptions';
import { SelectCards } from '../../stages/shared/SelectCards';
import { SelectTool } from '../selectTool';
import type { ToolDefinition } from '../definition';

export const select: ToolDefinition<'select'> = {
  id: 'select',
  label: 'Select',
  what: 'Select lines',
  key: 's',
  icon: icon(
    <>
      <path d="M3 17C6 7 12 15 19 5" />
      <path d="M2.500 12.500v-9h9M19.500 9.500v9h-9" strokeDasharray="2.500 2.200" strokeWidth="1.1" />
    </>,
  ),
  stages: ['trace', 'refine', 'ink', 'colour', 'deliver'],
  options: SelectOptions,
  cards: SelectCards,
  make: (context) => new SelectTool(context),
};
