import type { StageId, ToolId } from '../state/store';
import { BendTool } from './bendTool';
import { NodesTool } from './nodesTool';
import { PencilTool } from './pencilTool';
import { PenTool } from './penTool';
import { PlaceTool } from './placeTool';
import { CornersTool } from './cornersTool';
import { CropTool } from './cropTool';
import { PartTool } from './partTool';
import { PullTool } from './pullTool';
import { SelectTool } from './selectTool';
import { ShapeTool } from './shapeTool';
import { SwellTool } from './swellTool';
import { TrialTool } from './trialTool';
import type { Reach, Tool } from './tool';

/** Every tool: its name on its tile, the stages it is at hand in, and how it is made. */
export const toolRegistry: Record<ToolId, { label: string; stages: StageId[]; make: (reach: Reach) => Tool }> = {
  place: { label: 'Place', stages: ['prepare'], make: (r) => new PlaceTool(r) },
  crop: { label: 'Crop', stages: ['prepare'], make: (r) => new CropTool(r) },
  corners: { label: 'Corners', stages: ['prepare'], make: (r) => new CornersTool(r) },
  part: { label: 'Part', stages: ['prepare'], make: (r) => new PartTool(r) },
  pull: { label: 'Pull ink', stages: ['prepare'], make: (r) => new PullTool(r) },
  pen: { label: 'Pen', stages: ['trace'], make: (r) => new PenTool(r) },
  pencil: { label: 'Pencil', stages: ['trace'], make: (r) => new PencilTool(r) },
  bend: { label: 'Bend', stages: ['trace', 'refine'], make: (r) => new BendTool(r) },
  shape: { label: 'Shape', stages: ['trace'], make: (r) => new ShapeTool(r) },
  swell: { label: 'Swell', stages: ['ink'], make: (r) => new SwellTool(r) },
  readWidths: { label: 'Read widths', stages: ['ink'], make: (r) => new TrialTool(r, 'readWidths') },
  select: { label: 'Select', stages: ['trace', 'refine', 'ink', 'deliver'], make: (r) => new SelectTool(r) },
  nodes: { label: 'Nodes', stages: ['trace', 'refine'], make: (r) => new NodesTool(r) },
  settle: { label: 'Settle', stages: ['refine'], make: (r) => new TrialTool(r, 'settle') },
  thin: { label: 'Thin out', stages: ['refine'], make: (r) => new TrialTool(r, 'thin') },
};

export const toolIds = Object.keys(toolRegistry) as ToolId[];
export const toolsOf = (stage: StageId): ToolId[] => toolIds.filter((id) => toolRegistry[id].stages.includes(stage));
