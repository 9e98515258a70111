import type { DeskStage } from '../state/store';
import { toolsOf } from '../tools/registry';
import { stageTable } from './table';

/** What is at hand in each stage. */
export const desk = stageTable.map(({ id, first }): DeskStage => ({ id, first, tools: toolsOf(id) }));
