import { z } from 'zod';
import { correctionSchema, type Correction } from '../raster/correction';
import { lineSchema, runSchema, type Line, type Run } from './line';
import { layingShape, paintSchema, type Laying, type Paint } from './paint';
import { isPlainLine } from './plainLine';
import { idSchema, nameSchema, offsetSchema, pictureHash, quickly } from './values';

/** Where a picture is placed, and how it is shown: of a reference and of a picture in the art alike. */
export const placedShape = {
  id: idSchema,
  name: nameSchema,
  picture: pictureHash,
  pixelWidth: z.number().int().positive(),
  pixelHeight: z.number().int().positive(),
  corrections: z.array(correctionSchema).max(20),
  at: offsetSchema,
  width: z.number().positive().max(1e6),
  height: z.number().positive().max(1e6),
  turn: z.number().min(-360).max(360),
  flipX: z.boolean(),
  flipY: z.boolean(),
};

/** A picture in the art itself. `at`, `width`, `height`, `turn` and flips as of a reference. */
export const pictureSchema = z.strictObject({ kind: z.literal('picture'), ...placedShape, ...layingShape });

/**
 * An area that lines bound, filled. `at` lies in it; ends nearer than `gap` (page units) to another line are led to it.
 * `runs` is its outline as it was found last, the outer first: it follows its lines, and is kept when they no longer bound
 * it (`open`). The lines of all sheets bound it, but for those `without`. With `inner` it is painted no further than to the
 * bodies of its lines: that is what is seen of it.
 */
export const flatSchema = z.strictObject({
  kind: z.literal('flat'),
  id: idSchema,
  name: nameSchema.optional(),
  at: offsetSchema,
  gap: z.number().min(0).max(10_000),
  runs: z.array(runSchema).min(1).max(2_000),
  fill: paintSchema,
  open: z.boolean().optional(),
  without: z.array(idSchema).max(1_000).optional(),
  inner: z.array(runSchema).min(1).max(2_000).nullable().optional(),
  ...layingShape,
});

const groupName = { kind: z.literal('group'), id: idSchema, name: nameSchema };

/** Groups lie in each other no deeper than this. */
export const MOST_DEEP = 20;
const MOST_ITEMS = 100_000;

type ItemSchema = z.ZodType<Item>;

/** Items at so many groups' depth. Written out level by level: nothing that is sent can make it go deeper. */
function itemAt(level: number): ItemSchema {
  const within = level < MOST_DEEP ? [groupAt(level + 1)] : [];
  const any = z.discriminatedUnion('kind', [lineSchema, pictureSchema, flatSchema, ...within]) as unknown as ItemSchema;
  return quickly(isPlainLine, any);
}
const groupAt = (level: number) =>
  z.strictObject({
    ...groupName,
    items: z.array(itemAt(level)).max(MOST_ITEMS),
    /** What of the group lies outside of this line is not seen. The line's own style does not count. */
    clip: lineSchema.optional(),
    /** The line or flat whose outline the clip is: where that changes its shape, so does the clip. */
    inside: idSchema.optional(),
    ...layingShape,
  });

/** What a sheet or a group holds: a line, a flat, a picture, or a group of such. */
export const itemSchema = itemAt(0);
export const itemsSchema = z.array(itemSchema).max(MOST_ITEMS);
/** Some of a group, but not what is in it. */
export const groupSidesSchema = z
  .strictObject({ ...groupName, clip: lineSchema.nullable(), inside: idSchema.nullable(), ...layingShape })
  .omit({ kind: true, id: true })
  .partial();
export const pictureSidesSchema = pictureSchema.omit({ kind: true, id: true }).partial();
export const flatSidesSchema = flatSchema.omit({ kind: true, id: true }).partial();

export type Placed = Readonly<Omit<z.infer<typeof pictureSchema>, 'corrections' | 'kind' | 'opacity' | 'blend'>> & {
  readonly corrections: readonly Correction[];
};
export type Picture = Placed & Laying & { readonly kind: 'picture' };
export type Group = Laying & {
  readonly kind: 'group';
  readonly id: string;
  readonly name: string;
  readonly items: readonly Item[];
  readonly clip?: Line;
  readonly inside?: string;
};
export type Flat = Laying & {
  readonly kind: 'flat';
  readonly id: string;
  readonly name?: string;
  readonly at: Readonly<z.infer<typeof offsetSchema>>;
  readonly gap: number;
  readonly runs: readonly Run[];
  readonly fill: Paint;
  readonly open?: boolean;
  readonly without?: readonly string[];
  readonly inner?: readonly Run[] | null;
};
export type Item = Line | Flat | Picture | Group;
