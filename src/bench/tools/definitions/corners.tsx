import { icon } from '@/ui/icon';
import { DoneOption } from '../../stages/prepare/DoneOption';
import { CornersTool } from '../cornersTool';
import type { ToolDefinition } from '../definition';

export const corners: ToolDefinition<'corners'> = {
  id: 'corners',
  label: 'Corners',
  what: 'Corners',
  icon: icon(
    <>
      <path d="M5 5l13-2 1 13-15 3z" />
      <circle cx="5" cy="5" r="1.9" fill="#f4c20d" strokeWidth="1" />
      <circle cx="18" cy="3" r="1.9" fill="#f4c20d" strokeWidth="1" />
      <circle cx="19" cy="16" r="1.9" fill="#f4c20d" strokeWidth="1" />
      <circle cx="4" cy="19" r="1.9" fill="#f4c20d" strokeWidth="1" />
    </>,
  ),
  stages: ['prepare'],
  options: DoneOption,
  make: (context) => new CornersTool(context),
};
