import { icon } from '@/ui/icon';
import { TrialOptions } from '../../stages/refine/TrialOptions';
import { TrialTool } from '../trialTool';
import type { ToolDefinition } from '../definition';

export const readWidths: ToolDefinition<'readWidths'> = {
  id: 'readWidths',
  label: 'Read widths',
  what: 'Read widths',
  icon: icon(
    <>
      <path d="M2 15C7 15 9 5 14 5c3 0 4 2 6 2" strokeWidth="5" stroke="#b9af97" />
      <path d="M6 8.500l4.500 6M12 2.200l1.500 6.600M17 3.500l-.5 6" strokeWidth="1.3" />
    </>,
  ),
  stages: ['ink'],
  options: ({ onKey }) => <TrialOptions kind="readWidths" label="Read widths" onKey={onKey} />,
  make: (context) => new TrialTool(context, 'readWidths'),
};
