import { icon } from '@/ui/icon';
import { DoneOption } from '../../stages/prepare/DoneOption';
import { LensTool } from '../lensTool';
import type { ToolDefinition } from '../definition';

export const lens: ToolDefinition<'lens'> = {
  id: 'lens',
  label: 'Lens',
  what: 'Lens',
  icon: icon(
    <>
      <path d="M3 4.5c5-2 9-2 14 0M3 15.5c5 2 9 2 14 0" strokeWidth="1.2" strokeDasharray="2.5 2" />
      <path d="M2.5 10h15" />
    </>,
  ),
  stages: ['prepare'],
  options: DoneOption,
  make: (context) => new LensTool(context),
};
