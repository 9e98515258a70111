import { broad } from './broad';
import { brush } from './brush';
import { dry } from './dry';
import type { NibDefinition } from './nib';
import { round } from './round';
import type { Nib, NibKind } from '../../drawing/nib';
import { tapered } from './tapered';

/** All nibs, in the order in which they are offered. A further one is a file of its own and a line here. */
export const nibs: { [K in NibKind]: NibDefinition<K> } = { round, tapered, brush, broad, dry };

export const nibDefinition = (nib: Nib): NibDefinition => nibs[nib.kind] as unknown as NibDefinition;
