import { icon } from '@/ui/icon';
import { PourOptions } from '../../stages/colour/PourOptions';
import { PourTool } from '../pourTool';
import type { ToolDefinition } from '../definition';

export const pour: ToolDefinition<'pour'> = {
  id: 'pour',
  label: 'Pour',
  what: 'Pour: fill areas that lines bound',
  key: 'h',
  icon: icon(
    <>
      <path d="M3 15c3-6 6 2 9-3s4-5 7-2v9H3z" fill="#f4c20d" strokeWidth="1.2" />
      <path d="M11 2v6M8.500 6l2.500 2.500L13.500 6" />
    </>,
  ),
  stages: ['colour'],
  options: PourOptions,
  make: (context) => new PourTool(context),
};
