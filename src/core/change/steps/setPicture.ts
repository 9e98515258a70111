import { pictureSidesSchema } from '../../drawing/item';
import { settingItem } from './setItem';

/** Some of a picture in the art set anew: its place, corrections, opacity or blend. */
export const setPicture = settingItem('setPicture', 'picture', pictureSidesSchema);
