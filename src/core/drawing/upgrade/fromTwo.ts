import { isFlatStep, nested, type FlatLine } from './flat';
import { eachOf, isRaw, type Raw, type Upgrade } from './upgrade';

/**
 * Sheets came to hold items, groups among them, where they had held a list of lines that said which groups they are in; and
 * strokes and fills came to be paints, a colour that followed a fill among them.
 */
export const fromTwo: Upgrade = {
  from: 2,
  drawing(d) {
    const sheets = eachOf(d.sheets, withPaints);
    return { ...d, schema: 3, sheets: Array.isArray(sheets) ? itemsOf(sheets as Raw[]) : sheets };
  },
  items: (list) => nested([list.filter(isRaw).map(withPaint) as FlatLine[]])[0],
  steps(steps) {
    const next: Raw[] = [];
    for (const step of steps.map(withPaintsInStep)) {
      const last = next.at(-1);
      if (!isFlatStep(step)) next.push(step);
      else if (last?.step === 'flat') (last.steps as Raw[]).push(step);
      else next.push({ step: 'flat', steps: [step] });
    }
    return next;
  },
};

function itemsOf(sheets: readonly Raw[]): Raw[] {
  const lists = nested(sheets.map((s) => s.lines as FlatLine[]));
  return sheets.map(({ lines: _, ...sheet }, i) => ({ ...sheet, items: lists[i] }));
}

function withPaintsInStep(s: Raw): Raw {
  const next = { ...s };
  for (const key of ['before', 'after', 'line']) if (key in s) next[key] = withPaint(s[key]);
  if ('sheet' in s) next.sheet = withPaints(s.sheet);
  return next;
}

/** A sheet with the paints of its lines, and of its next line. */
const withPaints = (s: unknown): unknown =>
  isRaw(s) ? { ...(withPaint(s) as Raw), lines: eachOf(s.lines, withPaint) } : s;

/** Whatever has a style, a line or some of one, with its colours as paints. */
function withPaint(l: unknown): unknown {
  if (!isRaw(l) || !isRaw(l.style)) return l;
  const { colour, tint, ...style } = l.style;
  const stroke = typeof tint === 'number' ? { of: 'beside', by: tint, else: colour } : colour;
  return { ...l, style: { ...style, stroke } };
}
