import type { Draft } from '../draft';
import type { Definition } from './definition';
import { insertLine } from './insertLine';
import { insertReference } from './insertReference';
import { insertSheet } from './insertSheet';
import { moveLine } from './moveLine';
import { moveReference } from './moveReference';
import { moveSheet } from './moveSheet';
import { removeLine } from './removeLine';
import { removeReference } from './removeReference';
import { removeSheet } from './removeSheet';
import { setDrawing } from './setDrawing';
import { setLine } from './setLine';
import { setNodes } from './setNodes';
import { setPage } from './setPage';
import { setReference } from './setReference';
import { setSheet } from './setSheet';
import { translate } from './translate';

/** All kinds of steps, by name. */
export const definitions = {
  insertLine,
  removeLine,
  setLine,
  setNodes,
  moveLine,
  translate,
  insertSheet,
  removeSheet,
  setSheet,
  moveSheet,
  insertReference,
  removeReference,
  setReference,
  moveReference,
  setDrawing,
  setPage,
};

type AnyStep = { readonly step: keyof typeof definitions };
const definitionOf = (step: AnyStep): Definition<never> => definitions[step.step] as unknown as Definition<never>;

export const applyStep = (draft: Draft, step: AnyStep): void => definitionOf(step).apply(draft, step as never);
export const inverseStep = (step: AnyStep): AnyStep => definitionOf(step).inverse(step as never) as AnyStep;
/** The lines that a step may change, by their ids. */
export const linesTouchedBy = (step: AnyStep): Iterable<string> => definitionOf(step).lines(step as never) ?? [];
