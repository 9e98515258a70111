import { canPhoto } from '../src/server/simulated/pictures/canPhoto';
import { pearScan } from '../src/server/simulated/pictures/pearScan';
import { potPhoto } from '../src/server/simulated/pictures/potPhoto';
import { snailPhoto } from '../src/server/simulated/pictures/snailPhoto';
import { keptBytes } from './keptPicture';

/** The demo's pictures as files' bytes, each made once. */
export const pictures = {
  can: () => keptBytes('can', canPhoto),
  pear: () => keptBytes('pear', () => pearScan()),
  pot: () => keptBytes('pot', potPhoto),
  snail: () => keptBytes('snail', snailPhoto),
} as const;
