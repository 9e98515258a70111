import type { DeskStage } from '../state/store';
import { toolsOf } from '../tools/registry';
import type { Stage } from './stage';
import { stageTable, type StageId } from './table';

/** What is at hand in each stage. */
export const desk = stageTable.map(({ id, first, keeps }: Stage<StageId>): DeskStage => ({
  id,
  first,
  tools: toolsOf(id),
  keeps: keeps ?? toolsOf(id),
}));
