import { formatLength } from '@/ui/format';
import { later } from '@/ui/later';
import { tallyOfDrawing } from '../shared/tally';
import type { Stage } from '../stage';
import { InkOptions } from './InkOptions';

/** Strokes are given their widths, nibs and ends. */
export const ink: Stage<'ink'> = {
  id: 'ink',
  label: 'Ink',
  key: '4',
  first: 'swell',
  cards: later(() => import('./InkCards').then((m) => m.InkCards)),
  options: { select: InkOptions },
  progress(d) {
    const { widths } = tallyOfDrawing(d);
    const [first] = widths;
    if (first === undefined) return '–';
    return widths.size === 1 ? formatLength(first, 'pt', 1) : `${widths.size} widths`;
  },
};
