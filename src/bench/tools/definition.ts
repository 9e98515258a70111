import type { ComponentType, ReactNode } from 'react';
import type { StageId } from '../stages/table';
import type { ToolContext, Tool } from './tool';

/** What the tray hands to a tool's options: a key for the tool in hand, as if it had been pressed. */
export type OptionsProps = { readonly onKey: (key: string) => void };

/** A tool as it stands in the registry: everything that the bench knows of it. */
export type ToolDefinition<Id extends string = string> = {
  readonly id: Id;
  /** On its tile. */
  readonly label: string;
  /** In the list of keys. */
  readonly what: string;
  /** The key that takes it in hand, as the table of keys writes it. */
  readonly key?: string;
  /** Keys that it takes while it is in hand: each as the table writes it, and as the tool hears of it. */
  readonly keys?: readonly {
    readonly id: string;
    readonly key: string;
    readonly what: string;
    readonly press: string;
  }[];
  readonly icon: ReactNode;
  /** The stages that it is at hand in. */
  readonly stages: readonly StageId[];
  /** In the tray while it is in hand. */
  readonly options?: ComponentType<OptionsProps>;
  /** On the right, while it is in hand and lines are chosen. */
  readonly cards?: ComponentType;
  make(context: ToolContext): Tool;
};
