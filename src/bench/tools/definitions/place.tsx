import { icon } from '@/ui/icon';
import { PlaceTool } from '../placeTool';
import type { ToolDefinition } from '../definition';

export const place: ToolDefinition<'place'> = {
  id: 'place',
  label: 'Place',
  what: 'Place',
  icon: icon(
    <>
      <rect x="3" y="5" width="16" height="12" rx="1" />
      <path d="M3 14l4.5-4 4 4 2.5-2 5 4" strokeWidth="1.2" />
      <circle cx="3" cy="5" r="1.8" fill="#f4c20d" strokeWidth="1" />
      <circle cx="19" cy="17" r="1.8" fill="#f4c20d" strokeWidth="1" />
    </>,
  ),
  stages: ['prepare'],
  make: (context) => new PlaceTool(context),
};
