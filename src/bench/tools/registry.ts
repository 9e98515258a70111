import type { StageId } from '../stages/table';
import type { ToolDefinition } from './definition';
import { bend } from './definitions/bend';
import { corners } from './definitions/corners';
import { apart } from './definitions/apart';
import { crop } from './definitions/crop';
import { gradient } from './definitions/gradient';
import { lens } from './definitions/lens';
import { nodes } from './definitions/nodes';
import { part } from './definitions/part';
import { pen } from './definitions/pen';
import { pencil } from './definitions/pencil';
import { place } from './definitions/place';
import { pour } from './definitions/pour';
import { pull } from './definitions/pull';
import { pullShapes } from './definitions/pullShapes';
import { readWidths } from './definitions/readWidths';
import { sample } from './definitions/sample';
import { select } from './definitions/select';
import { settle } from './definitions/settle';
import { shade } from './definitions/shade';
import { shape } from './definitions/shape';
import { swell } from './definitions/swell';
import { thin } from './definitions/thin';
import { tones } from './definitions/tones';

/** Every tool, in the order of the tray. */
const all = [
  place,
  lens,
  crop,
  apart,
  corners,
  tones,
  part,
  pull,
  pullShapes,
  pen,
  pencil,
  bend,
  shape,
  swell,
  pour,
  sample,
  shade,
  gradient,
  readWidths,
  select,
  nodes,
  settle,
  thin,
] as const;

export type ToolId = (typeof all)[number]['id'];
export const tools: readonly ToolDefinition<ToolId>[] = all;
export const toolOf = (id: ToolId): ToolDefinition<ToolId> => tools.find((t) => t.id === id)!;
export const toolsOf = (stage: StageId): ToolId[] => tools.filter((t) => t.stages.includes(stage)).map((t) => t.id);
