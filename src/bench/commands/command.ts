import type { OrderMove } from '@/core/edits/arrange';
import type { StageId } from '../stages/table';
import type { ToolId } from '../tools/registry';

/** A switch that a key turns over. */
export type Switch =
  | 'sway'
  | 'distance'
  | 'coverage'
  | 'comb'
  | 'flow'
  | 'bare'
  | 'draft'
  | 'seeThrough'
  | 'loupe'
  | 'follow'
  | 'straightFirst'
  | 'snapLines'
  | 'figures';

/** What is shown for as long as a key is held. */
export type Held = 'peek' | 'uncorrected' | 'lifted' | 'squinting';

/** What keys do. The table of keys is the one place that knows; the bench and the list of keys both read it. */
export type Command =
  | { do: 'tool'; tool: ToolId }
  | { do: 'stage'; stage: StageId }
  | { do: 'hold'; shows: Held }
  | { do: 'switch'; which: Switch }
  | { do: 'order'; move: OrderMove }
  /** A key of the tool in hand, whatever it has been changed to. */
  | { do: 'toolKey'; key: string }
  | {
      do:
        | 'undo'
        | 'redo'
        | 'zoomIn'
        | 'zoomOut'
        | 'fit'
        | 'actualSize'
        | 'chooseAll'
        | 'chooseNone'
        | 'invert'
        | 'alike'
        | 'duplicate'
        | 'group'
        | 'ungroup'
        | 'join'
        | 'solo'
        | 'keys';
    };
