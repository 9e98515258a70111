import { icon } from '@/ui/icon';
import { PencilOptions } from '../../stages/trace/PencilOptions';
import { PencilTool } from '../pencilTool';
import type { ToolDefinition } from '../definition';

export const pencil: ToolDefinition<'pencil'> = {
  id: 'pencil',
  label: 'Pencil',
  what: 'Pencil',
  key: 'q',
  icon: icon(
    <>
      <path d="M3 19l1.500-5L15 3.500l3.500 3.500L8 17.500z" />
      <path d="M3 19l1.500-5L8 17.500z" fill="#f4c20d" strokeWidth="1" />
      <path d="M12 19c2.500-2 4 1.500 7-1" strokeWidth="1.2" />
    </>,
  ),
  stages: ['trace', 'colour'],
  options: PencilOptions,
  make: (context) => new PencilTool(context),
};
