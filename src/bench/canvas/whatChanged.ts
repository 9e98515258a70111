import { shownDrawing, type BenchState } from '../state/store';

/** Of what the bench knows, what each of the two canvases shows. */

const onGround = ['view', 'window', 'peek', 'uncorrected', 'lifted', 'compare', 'reference', 'stage'] as const;

/** Whether the ground, the references or what lies still on them have to be painted anew. */
export function changesGround(s: BenchState, before: BenchState): boolean {
  const [shown, was] = [shownDrawing(s), shownDrawing(before)];
  return (
    onGround.some((k) => s[k] !== before[k]) ||
    (s.replay === null) !== (before.replay === null) ||
    // Of very many lines only those that are chosen are coloured by their distance.
    (s.stage === 'refine' && s.lines !== before.lines) ||
    shown.references !== was.references ||
    shown.dim !== was.dim ||
    s.drawing.page !== before.drawing.page
  );
}

const above = [
  'view',
  'window',
  'lines',
  'nodes',
  'tool',
  'drawing',
  'preview',
  'shift',
  'reference',
  'reading',
  'sheet',
  'pulled',
  'rulers',
  'mirror',
  'origin',
  'lifted',
  'uncorrected',
  'compare',
  'stage',
  'trial',
  'flats',
  'stop',
  'replay',
  'differences',
] as const;

/** Whether the marks have to be. */
export const changesMarks = (s: BenchState, before: BenchState): boolean => above.some((k) => s[k] !== before[k]);
