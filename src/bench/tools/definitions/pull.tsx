import { icon } from '@/ui/icon';
import { PullTool } from '../pullTool';
import type { ToolDefinition } from '../definition';

export const pull: ToolDefinition<'pull'> = {
  id: 'pull',
  label: 'Pull ink',
  what: 'Pull ink',
  icon: icon(
    <>
      <path d="M3 15c4-9 6 3 9-4" strokeWidth="3.600" stroke="#b9af97" />
      <path d="M3 15c4-9 6 3 9-4" strokeWidth="1.2" />
      <path d="M13 8l5-4M18 4l-.5 3.500M18 4l-3.500.2" strokeWidth="1.3" />
    </>,
  ),
  stages: ['prepare'],
  make: (context) => new PullTool(context, { pull: 'Pull lines', makes: 'draws the ink as lines', one: 'line' }),
};
