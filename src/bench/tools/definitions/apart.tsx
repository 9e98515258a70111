import { icon } from '@/ui/icon';
import { DoneOption } from '../../stages/prepare/DoneOption';
import { ApartTool } from '../apartTool';
import type { ToolDefinition } from '../definition';

export const apart: ToolDefinition<'apart'> = {
  id: 'apart',
  label: 'Set apart',
  what: 'Set apart',
  icon: icon(
    <>
      <path
        d="M10 5.500c3 0 4.500 2 4.500 4.500s-2 4.500-4.500 4.500-4-2-4-4.500 1.500-4.500 4-4.500z"
        fill="#b9af97"
        stroke="none"
      />
      <path
        d="M10 2.500c5 0 7.500 3 7.500 7.500s-3 7-7.500 7-7.500-2.500-7.500-7 2.500-7.500 7.500-7.500z"
        strokeWidth="1.2"
        strokeDasharray="2.500 2"
      />
    </>,
  ),
  stages: ['prepare'],
  options: DoneOption,
  make: (context) => new ApartTool(context),
};
