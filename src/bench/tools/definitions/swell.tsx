import { icon } from '@/ui/icon';
import { InkOptions } from '../../stages/ink/InkOptions';
import { SwellTool } from '../swellTool';
import type { ToolDefinition } from '../definition';

export const swell: ToolDefinition<'swell'> = {
  id: 'swell',
  label: 'Swell',
  what: 'Swell lines',
  key: 'w',
  icon: icon(
    <>
      <path
        d="M2 12C7 11 8 6.500 12 6.500S17 10 20 11c-3 1-4 4.500-8 4.500S7 13 2 12z"
        fill="#f4c20d"
        strokeWidth="1.2"
      />
      <path d="M12 3v16" strokeWidth="1.2" />
      <circle cx="12" cy="3" r="1.400" fill="#fffefb" strokeWidth="1" />
      <circle cx="12" cy="19" r="1.400" fill="#fffefb" strokeWidth="1" />
    </>,
  ),
  stages: ['ink'],
  options: InkOptions,
  make: (context) => new SwellTool(context),
};
