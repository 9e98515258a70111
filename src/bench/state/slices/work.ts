import type { Line } from '@/core';
import type { End } from '@/core/drawing/end';
import type { Mirror } from '@/core/edits/mirrored';
import type { StageId } from '../../stages/table';
import type { ToolId } from '../../tools/registry';

/** What is at hand in a stage, and the tool that is taken in hand there first. */
export type DeskStage = {
  readonly id: StageId;
  readonly tools: readonly ToolId[];
  readonly first: ToolId;
  /** Those that stay in hand when it is gone to; all, if none are told. */
  readonly keeps?: readonly ToolId[];
};

/** Pulled lines as they would be laid on the page, and which of them are let go. */
export type Pulled = {
  readonly reference: string;
  readonly lines: readonly Line[];
  readonly dropped: ReadonlySet<string>;
};

/** What a tool is trying on the chosen lines: shown, not yet in the drawing. */
export type Trial = {
  readonly kind: 'settle' | 'thin' | 'readWidths';
  readonly busy: boolean;
  /** How many lines come out otherwise, and the nodes of all that were asked for before and after. */
  readonly lines: number;
  readonly before: number;
  readonly after: number;
  readonly failed: string | null;
};

/** Something to tell, with at most one thing to do about it. */
export type Message = { key: number; tone: 'note' | 'warning'; text: string; action?: { label: string; run(): void } };

/** The stage of the work, the tool in hand, what it is in the middle of, and what is told. */
export type WorkState = {
  readonly stage: StageId;
  readonly tool: ToolId;
  /** The stages, and what is at hand in each. */
  readonly desk: readonly DeskStage[];
  /** The end at which the pen is drawing a line on; null when it draws none. */
  readonly underPen: End | null;
  /** How what is drawn is drawn in other places as well; null where it is not. */
  readonly mirror: Mirror | null;
  /** Lines that are being pulled from ink: shown, not yet in the drawing. */
  readonly pulled: Pulled | null;
  /** What is being tried by settling or thinning out; null while nothing is. */
  readonly trial: Trial | null;
  /** The sheets that are seen and yet bound nothing that is poured. */
  readonly unbounding: ReadonlySet<string>;
  /** The stop of the gradient in hand; null where none is. */
  readonly stop: number | null;
  readonly message: Message | null;
};

export const freshWork = (stage: StageId, desk: readonly DeskStage[]): WorkState => ({
  stage,
  desk,
  tool: 'select',
  underPen: null,
  mirror: null,
  pulled: null,
  trial: null,
  stop: null,
  unbounding: new Set(),
  message: null,
});
