import { icon } from '@/ui/icon';
import { PenOptions } from '../../stages/trace/PenOptions';
import { PenTool } from '../penTool';
import type { ToolDefinition } from '../definition';

export const pen: ToolDefinition<'pen'> = {
  id: 'pen',
  label: 'Pen',
  what: 'Pen',
  key: 'a',
  icon: icon(
    <>
      <path
        d="M19 2C12.500 3.500 8 8.500 6.500 15l-1.500 5 4-3.500C14.500 15 18.500 9 19 2z"
        fill="#f4c20d"
        strokeWidth="1.2"
      />
      <path d="M6.500 17C9.500 12 13 8 17 4.500" strokeWidth="1.1" />
    </>,
  ),
  stages: ['trace', 'colour'],
  options: PenOptions,
  make: (context) => new PenTool(context),
};
