import { icon } from '@/ui/icon';
import { GradientOptions } from '../../stages/colour/GradientOptions';
import type { ToolDefinition } from '../definition';
import { GradientTool } from '../gradientTool';

export const gradient: ToolDefinition<'gradient'> = {
  id: 'gradient',
  label: 'Gradient',
  what: 'Gradient: pull one across a filled shape',
  key: 'u',
  icon: icon(
    <>
      <path d="M3 5h16v12H3z" />
      <path d="M3 5h5v12H3z" fill="#f4c20d" strokeWidth="1.2" />
      <path d="M11 8v6M14 9v4M17 10v2" strokeWidth="1.2" />
    </>,
  ),
  stages: ['colour'],
  options: GradientOptions,
  make: (context) => new GradientTool(context),
};
