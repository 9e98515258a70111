import { icon } from '@/ui/icon';
import { ShadeOptions } from '../../stages/colour/ShadeOptions';
import type { ToolDefinition } from '../definition';
import { ShadeTool } from '../shadeTool';

export const shade: ToolDefinition<'shade'> = {
  id: 'shade',
  label: 'Shade',
  what: 'Shade: draw shade and light into a filled shape',
  key: 'j',
  keys: [{ id: 'shadeLight', key: 'Shift j', what: 'Shade: light for shade', press: 'swap' }],
  icon: icon(
    <>
      <circle cx="11" cy="11" r="8" />
      <path d="M11 3a8 8 0 0 1 0 16c-4-4-4-12 0-16z" fill="#f4c20d" strokeWidth="1.2" />
    </>,
  ),
  stages: ['colour'],
  options: ShadeOptions,
  make: (context) => new ShadeTool(context),
};
