import { icon } from '@/ui/icon';
import { SampleOptions } from '../../stages/colour/SampleOptions';
import { SampleTool } from '../sampleTool';
import type { ToolDefinition } from '../definition';

export const sample: ToolDefinition<'sample'> = {
  id: 'sample',
  label: 'Sample',
  what: 'Sample: take a colour from the picture',
  key: 't',
  icon: icon(
    <>
      <path d="M3 4h11v11H3zM3 9.500h11M8.500 4v11" />
      <path d="M8.500 9.500H14V15H8.500z" fill="#f4c20d" strokeWidth="1.2" />
      <path d="M15 16l4 4" />
    </>,
  ),
  stages: ['colour'],
  options: SampleOptions,
  make: (context) => new SampleTool(context),
};
