import type { NibDefinition } from './nib';

export const round: NibDefinition<'round'> = {
  kind: 'round',
  label: 'round',
  about: 'As wide as it is set, whichever way it goes.',
  plain: { kind: 'round' },
};
