import { icon } from '@/ui/icon';
import { TonesOptions } from '../../stages/prepare/TonesOptions';
import { TonesTool } from '../tonesTool';
import type { ToolDefinition } from '../definition';

export const tones: ToolDefinition<'tones'> = {
  id: 'tones',
  label: 'Tones',
  what: 'Pick ink and paper',
  icon: icon(
    <>
      <path d="M4 4h14v15H4z" />
      <path d="M4 19V9l14-3v13z" fill="#27241d" strokeWidth="0.8" />
      <circle cx="8" cy="15" r="1.8" fill="#f4c20d" strokeWidth="1" />
      <circle cx="13" cy="5.200" r="1.800" fill="#f4c20d" strokeWidth="1" />
    </>,
  ),
  stages: ['prepare'],
  options: TonesOptions,
  make: (context) => new TonesTool(context),
};
