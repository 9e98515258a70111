'use client';

import type { Correction } from '@/core';
import { Amount } from '@/ui/Amount';

/** What is done with a correction that is being set: shown while the hand moves, set when it lets go. */
export type Setting<C> = { c: C; disabled?: boolean; show: (c: C) => void; set: (c: C) => void };

type Props<C> = Setting<C> & { label: string; of: keyof C & string; min: number; max: number; step?: number };

/** One of a correction's figures as a slider. */
export const CorrectionAmount = <C extends Correction>({ c, of, show, set, ...rest }: Props<C>) => (
  <Amount {...rest} value={c[of] as number} onChange={(v, done) => (done ? set : show)({ ...c, [of]: v })} />
);
