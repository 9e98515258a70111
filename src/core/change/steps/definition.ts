import type { z } from 'zod';
import type { DeepReadonly } from '../../readonly';
import type { Draft } from '../draft';

/**
 * What a kind of step is: the form in which it is kept and sent, what it does, and the step that takes it back. `apply`
 * throws ChangeError when the step speaks of something that is not there, or is not as it says it was; one that may take
 * longer than a frame is a generator, which pauses now and then.
 */
export type Definition<S extends z.ZodType<{ step: string }>> = {
  readonly schema: S;
  apply(draft: Draft, step: DeepReadonly<z.infer<S>>): Iterable<undefined> | void;
  inverse(step: DeepReadonly<z.infer<S>>): { readonly step: string };
  /** The items that it may change, by their ids; a group stands for what is in it. Null: none. */
  touches(step: DeepReadonly<z.infer<S>>): Iterable<string> | null;
};

/** A definition with its types as they follow from its schema. */
export const definition = <S extends z.ZodType<{ step: string }>>(d: Definition<S>): Definition<S> => d;
