import { icon } from '@/ui/icon';
import { DoneOption } from '../../stages/prepare/DoneOption';
import { CropTool } from '../cropTool';
import type { ToolDefinition } from '../definition';

export const crop: ToolDefinition<'crop'> = {
  id: 'crop',
  label: 'Crop',
  what: 'Crop',
  icon: icon(
    <>
      <path d="M3 4h11v13M8 2v12h11" />
      <path d="M8 14L14 8" strokeWidth="1" strokeDasharray="2 2" />
    </>,
  ),
  stages: ['prepare'],
  options: DoneOption,
  make: (context) => new CropTool(context),
};
