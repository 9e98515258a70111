import { groupSidesSchema } from '../../drawing/item';
import { settingItem } from './setItem';

/** Some of a group set anew: its name, opacity, blend or clip. */
export const setGroup = settingItem('setGroup', 'group', groupSidesSchema);
