import { colour } from './colour/stage';
import { deliver } from './deliver/stage';
import { ink } from './ink/stage';
import { prepare } from './prepare/stage';
import { refine } from './refine/stage';
import { trace } from './trace/stage';

/** The stages of the work, in their order. */
export const stageTable = [prepare, trace, refine, ink, colour, deliver] as const;

export type StageId = (typeof stageTable)[number]['id'];
export const stageOf = (id: StageId): (typeof stageTable)[number] => stageTable.find((s) => s.id === id)!;
export const isStage = (id: string): id is StageId => stageTable.some((s) => s.id === id);
