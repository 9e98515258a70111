import type { Draft } from '../draft';
import type { Definition } from './definition';
import { flat } from './flat';
import { insertItem } from './insertItem';
import { insertReference } from './insertReference';
import { insertSheet } from './insertSheet';
import { moveItems } from './moveItems';
import { moveReference } from './moveReference';
import { moveSheet } from './moveSheet';
import { removeItem } from './removeItem';
import { removeReference } from './removeReference';
import { removeSheet } from './removeSheet';
import { setDrawing } from './setDrawing';
import { setFlat } from './setFlat';
import { setGroup } from './setGroup';
import { setLine } from './setLine';
import { setNodes } from './setNodes';
import { setPage } from './setPage';
import { setPicture } from './setPicture';
import { setReference } from './setReference';
import { setSheet } from './setSheet';
import { translate } from './translate';

/** All kinds of steps, by name. */
export const definitions = {
  insertItem,
  removeItem,
  moveItems,
  setLine,
  setNodes,
  setGroup,
  setPicture,
  setFlat,
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
  flat,
};

type AnyStep = { readonly step: keyof typeof definitions };
const definitionOf = (step: AnyStep): Definition<never> => definitions[step.step] as unknown as Definition<never>;

/** Does what a step does; one that gives pauses has done it when all of them are over. @throws ChangeError */
export const applyStep = (draft: Draft, step: AnyStep): Iterable<undefined> | void =>
  definitionOf(step).apply(draft, step as never);
export const inverseStep = (step: AnyStep): AnyStep => definitionOf(step).inverse(step as never) as AnyStep;
/** The items that a step may change, by their ids; a group stands for what is in it. */
export const touchedBy = (step: AnyStep): Iterable<string> => definitionOf(step).touches(step as never) ?? [];
