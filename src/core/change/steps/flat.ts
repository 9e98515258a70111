import { z } from 'zod';
import type { Group, Item } from '../../drawing/item';
import { idSchema, lineSchema, sheetSchema, type Sheet } from '../../drawing/schema';
import { flattened, nested, type FlatLine } from '../../drawing/upgrade/flat';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { index } from './place';
import { inserted, isSame, removed, turnedAbout, withSides } from './sides';

const flatLine = lineSchema
  .omit({ kind: true, opacity: true, blend: true })
  .extend({ groups: z.array(idSchema).max(20).optional() });
const sides = flatLine.omit({ id: true }).partial();
const flatPlace = z.strictObject({ sheet: idSchema, index });
const flatSheet = sheetSchema.omit({ items: true, opacity: true }).extend({ lines: z.array(flatLine).max(100_000) });

const flatStep = z.discriminatedUnion('step', [
  z.strictObject({ step: z.literal('insertLine'), sheet: idSchema, index, line: flatLine }),
  z.strictObject({ step: z.literal('removeLine'), sheet: idSchema, index, line: flatLine }),
  z.strictObject({ step: z.literal('moveLine'), id: idSchema, from: flatPlace, to: flatPlace }),
  z.strictObject({ step: z.literal('setLine'), sheet: idSchema, id: idSchema, before: sides, after: sides }),
  z.strictObject({ step: z.literal('insertSheet'), index, sheet: flatSheet }),
  z.strictObject({ step: z.literal('removeSheet'), index, sheet: flatSheet }),
]);
type FlatStep = z.infer<typeof flatStep>;

/**
 * Steps of a change that was made when sheets held lists of lines, which said what groups they are in (number 2 of the
 * schema). They are done on such lists, of which items are made again. Nothing makes such steps any more.
 */
export const flat = definition({
  schema: z.strictObject({ step: z.literal('flat'), steps: z.array(flatStep).min(1).max(200_000) }),
  apply(draft, { steps }) {
    const groups = new Map<string, Group>();
    const before = draft.finish().sheets;
    const after = (steps as FlatStep[]).reduce(
      applied,
      before.map(({ items, ...sheet }): FlatSheet => ({ sheet, lines: flattened(items, groups) })),
    );
    const lists = nested(
      after.map((s) => s.lines),
      groups,
    );
    draft.setSheets((sheets) =>
      after.map(({ sheet, lines }, i): Sheet => {
        const was = sheets.find((s) => s.id === sheet.id);
        const isUntouched = was && before.includes(was) && !isOther(was.items, lists[i], lines);
        return isUntouched ? was : ({ ...sheet, items: lists[i] } as Sheet);
      }),
    );
  },
  inverse: ({ steps }) => ({ step: 'flat', steps: steps.map((s) => inverse(s as FlatStep)).reverse() }),
  touches: ({ steps }) => (steps as FlatStep[]).flatMap(touched),
});

type FlatSheet = { sheet: Omit<Sheet, 'items'>; lines: readonly FlatLine[] };

const isOther = (items: readonly Item[], next: readonly Item[], lines: readonly FlatLine[]): boolean =>
  items.length !== next.length || !(items.every((item, i) => item === lines[i]) || isSame(items, next));

function applied(sheets: FlatSheet[], step: FlatStep): FlatSheet[] {
  const on = (id: string, make: (lines: readonly FlatLine[]) => readonly FlatLine[]): FlatSheet[] => {
    const i = sheets.findIndex((s) => s.sheet.id === id);
    if (i < 0) throw new ChangeError(`sheet ${id} is not there`);
    return sheets.with(i, { ...sheets[i], lines: make(sheets[i].lines) });
  };
  switch (step.step) {
    case 'insertLine':
      return on(step.sheet, (lines) => inserted(lines, step.index, plain(step.line), 'line'));
    case 'removeLine':
      return on(step.sheet, (lines) => removed(lines, step.index, plain(step.line), 'line'));
    case 'moveLine': {
      const line = sheets.find((s) => s.sheet.id === step.from.sheet)?.lines[step.from.index];
      if (line?.id !== step.id) throw new ChangeError(`line ${step.id} is not at that place`);
      const without = on(step.from.sheet, (lines) => lines.toSpliced(step.from.index, 1));
      return without.map((s) =>
        s.sheet.id === step.to.sheet ? { ...s, lines: inserted(s.lines, step.to.index, line, 'line') } : s,
      );
    }
    case 'setLine':
      return on(step.sheet, (lines) => {
        const i = lines.findIndex((l) => l.id === step.id);
        if (i < 0) throw new ChangeError(`line ${step.id} is not on sheet ${step.sheet}`);
        return lines.with(i, withSides(lines[i], step, 'line', { marks: [], groups: [] }));
      });
    case 'insertSheet':
    case 'removeSheet': {
      const { lines, ...sheet } = step.sheet;
      const whole: FlatSheet = { sheet: sheet as Omit<Sheet, 'items'>, lines: lines.map(plain) };
      return step.step === 'insertSheet'
        ? inserted(sheets, step.index, whole, 'sheet')
        : removed(sheets, step.index, whole, 'sheet');
    }
  }
}

/** A line that is in no group does not say so. */
function plain({ groups, ...line }: z.infer<typeof flatLine>): FlatLine {
  return groups?.length ? { ...line, groups } : line;
}

function inverse(step: FlatStep): FlatStep {
  switch (step.step) {
    case 'insertLine':
      return { ...step, step: 'removeLine' };
    case 'removeLine':
      return { ...step, step: 'insertLine' };
    case 'moveLine':
      return { ...step, from: step.to, to: step.from };
    case 'setLine':
      return turnedAbout(step);
    case 'insertSheet':
      return { ...step, step: 'removeSheet' };
    case 'removeSheet':
      return { ...step, step: 'insertSheet' };
  }
}

function touched(step: FlatStep): string[] {
  if ('line' in step) return [step.line.id];
  return 'id' in step ? [step.id] : step.sheet.lines.map((l) => l.id);
}
