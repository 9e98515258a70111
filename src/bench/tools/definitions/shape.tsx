import { icon } from '@/ui/icon';
import { ShapeOptions } from '../../stages/trace/ShapeOptions';
import { ShapeTool } from '../shapeTool';
import type { ToolDefinition } from '../definition';

export const shape: ToolDefinition<'shape'> = {
  id: 'shape',
  label: 'Shape',
  what: 'Shape',
  key: 'Shift a',
  icon: icon(
    <>
      <ellipse cx="8.500" cy="8" rx="6" ry="5" />
      <path d="M10 19l4.500-9 5.500 7z" fill="#f4c20d" strokeWidth="1.2" />
    </>,
  ),
  stages: ['trace'],
  options: ShapeOptions,
  make: (context) => new ShapeTool(context),
};
