import { icon } from '@/ui/icon';
import { PullTool } from '../pullTool';
import type { ToolDefinition } from '../definition';

export const pullShapes: ToolDefinition<'pullShapes'> = {
  id: 'pullShapes',
  label: 'Pull shapes',
  what: 'Pull shapes',
  icon: icon(
    <>
      <path
        d="M2.500 16c-.5-5 2-8 5.500-7.500 2 .3 2.500 2 4.500 2.500.5 3-1 5.500-3 5.500z"
        fill="#b9af97"
        stroke="none"
      />
      <path d="M2.500 16c-.5-5 2-8 5.500-7.500 2 .3 2.500 2 4.500 2.500.5 3-1 5.500-3 5.500z" strokeWidth="1.2" />
      <path d="M13 8l5-4M18 4l-.5 3.500M18 4l-3.500.2" strokeWidth="1.3" />
    </>,
  ),
  stages: ['prepare'],
  make: (context) => new PullTool(context, { pull: 'Pull shapes', makes: 'makes areas of like colour', one: 'shape' }),
};
