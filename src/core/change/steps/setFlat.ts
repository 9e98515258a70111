import { flatSidesSchema } from '../../drawing/item';
import { settingItem } from './setItem';

/** Some of a flat set anew: its outline, where it lies, what it is painted with. */
export const setFlat = settingItem('setFlat', 'flat', flatSidesSchema);
