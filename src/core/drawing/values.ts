import { z } from 'zod';

/** What drawings are made of at the bottom: figures, names and colours. Lengths are page units (CSS px, 96 to the inch). */
export const MOST_PLACE = 1e7;
export const finite = z.number().min(-MOST_PLACE).max(MOST_PLACE);
export const share = z.number().min(0).max(1);
export const idSchema = z.string().regex(/^[A-Za-z0-9_-]{1,60}$/);
export const colourSchema = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour is written #rrggbb');
export const offsetSchema = z.strictObject({ x: finite, y: finite });
export const nameSchema = z.string().max(200);
export const pictureHash = z.string().regex(/^[0-9a-f]{64}$/);
