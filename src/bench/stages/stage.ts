import type { ComponentType } from 'react';
import type { Drawing } from '@/core';
import type { OptionsProps } from '../tools/definition';
import type { ToolId } from '../tools/registry';

/** A stage of the work as it stands in the table: everything that the bench knows of it. */
export type Stage<Id extends string = string> = {
  readonly id: Id;
  /** On the ruler. */
  readonly label: string;
  /** The key that goes to it. */
  readonly key: string;
  /** The tool in hand where the one before is not at hand here. */
  readonly first: ToolId;
  /** The tools that stay in hand when it is gone to; all that are at hand in it, if none are told. */
  readonly keeps?: readonly ToolId[];
  /** Over the cards, where it does not depend on what is chosen. */
  readonly heading?: string;
  /** The cards on the right. */
  readonly cards: ComponentType & { ahead?(): void };
  /** Options in the tray that stand here in place of a tool's own. */
  readonly options?: Partial<Record<ToolId, ComponentType<OptionsProps>>>;
  /** How far the drawing is in it, in a word or two; `areas` between its lines, where they are known. */
  progress(d: Drawing, areas: { there: number; coloured: number } | null): string;
};
