import { icon } from '@/ui/icon';
import { TrialOptions } from '../../stages/refine/TrialOptions';
import { TrialTool } from '../trialTool';
import type { ToolDefinition } from '../definition';

export const settle: ToolDefinition<'settle'> = {
  id: 'settle',
  label: 'Settle',
  what: 'Settle lines onto the ink',
  key: 'g',
  icon: icon(
    <>
      <path d="M2 15c5-8 9 3 18-5" strokeWidth="4" stroke="#b9af97" />
      <path d="M2 9c5-8 9 3 18-5" strokeWidth="1.2" strokeDasharray="2 2" />
      <path d="M2 15c5-8 9 3 18-5" strokeWidth="1.4" />
      <path d="M11 4v4M9.200 6.500L11 8.300l1.800-1.800" strokeWidth="1.2" />
    </>,
  ),
  stages: ['refine'],
  options: ({ onKey }) => <TrialOptions kind="settle" label="Settle" onKey={onKey} />,
  make: (context) => new TrialTool(context, 'settle'),
};
