import { icon } from '@/ui/icon';
import { TrialOptions } from '../../stages/refine/TrialOptions';
import { TrialTool } from '../trialTool';
import type { ToolDefinition } from '../definition';

export const thin: ToolDefinition<'thin'> = {
  id: 'thin',
  label: 'Thin out',
  what: 'Thin out nodes',
  key: 'e',
  icon: icon(
    <>
      <path d="M2 16C5 4 16 4 20 14" strokeWidth="1.4" />
      <circle cx="2.800" cy="14" r="1.9" fill="#f4c20d" strokeWidth="1" />
      <circle cx="19.500" cy="13" r="1.9" fill="#f4c20d" strokeWidth="1" />
      <path d="M6.500 5.500l3 3M9.500 5.500l-3 3M13 5l3 3M16 5l-3 3" strokeWidth="1.2" />
    </>,
  ),
  stages: ['refine'],
  options: ({ onKey }) => <TrialOptions kind="thin" label="Thin out" onKey={onKey} />,
  make: (context) => new TrialTool(context, 'thin'),
};
