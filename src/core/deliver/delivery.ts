import { z } from 'zod';
import { fileFormats } from './fileFormats';
import { FEWEST_STEPS, MOST_STEPS } from '../colour/tone';
import { idSchema } from '../drawing/values';

/** How a drawing is written as SVG, beyond what is seen of it. */
export const svgLookShape = {
  /** Strokes as strokes, or as the outlines of their bodies. */
  strokes: z.enum(['live', 'outlines']),
  /** Flats where they lie, or those that lie together in groups of their own. */
  flats: z.enum(['in place', 'apart']),
  /** What swatches are written as: their colour wherever it is used, classes of a style sheet, or its custom properties. */
  colours: z.enum(['values', 'classes', 'properties']),
  /** Pictures that are items of the drawing. */
  pictures: z.boolean(),
  /** Titles, and what brings widths and names back when it is read again. */
  metadata: z.boolean(),
  decimals: z.number().int().min(0).max(6),
};
export type SvgLook = Readonly<z.infer<z.ZodObject<typeof svgLookShape>>>;
export const plainSvgLook: SvgLook = {
  strokes: 'live',
  flats: 'in place',
  colours: 'values',
  pictures: true,
  metadata: true,
  decimals: 3,
};

/** A sheet of paper that lines are laid on to be coloured by hand. Lengths in page units. */
export const paperSchema = z.strictObject({
  width: z.number().min(50).max(20_000),
  height: z.number().min(50).max(20_000),
  margin: z.number().min(0).max(2_000),
  title: z.boolean(),
  border: z.boolean(),
  /** How often it is on the paper; of several sheets or folders, so many are. */
  count: z.number().int().min(1).max(24),
});
export type Paper = Readonly<z.infer<typeof paperSchema>>;

/** What file is wanted of a drawing. */
export const deliverySchema = z.strictObject({
  format: z.enum(fileFormats),
  /** The whole page, as much as the drawing takes, or what was chosen alone. */
  scope: z.enum(['page', 'drawing', 'chosen']),
  chosen: z.array(idSchema).max(200_000).optional(),
  /** One file of all, or one for each sheet or folder. */
  each: z.enum(['all', 'sheet', 'folder']),
  /** All of it, just strokes, just colours, or all in a few greys. */
  shows: z.enum(['all', 'lines', 'colours', 'squint']),
  steps: z.number().int().min(FEWEST_STEPS).max(MOST_STEPS),
  ground: z.boolean(),
  reference: z.boolean(),
  dpi: z.number().min(1).max(2_400),
  /** Of a format that loses something, 1 to 100. */
  quality: z.number().int().min(1).max(100),
  /** Left and right changed, for transfers. */
  mirror: z.boolean(),
  /** How far colour reaches beyond the page's edge, page units; marks show where it is cut. */
  bleed: z.number().min(0).max(1_000),
  marks: z.boolean(),
  svg: z.strictObject(svgLookShape),
  paper: paperSchema.nullable(),
});
export type Delivery = Readonly<z.infer<typeof deliverySchema>>;

/** The page as SVG, as it is seen. */
export const firstDelivery: Delivery = {
  format: 'svg',
  scope: 'page',
  each: 'all',
  shows: 'all',
  steps: 4,
  ground: false,
  reference: false,
  dpi: 96,
  quality: 90,
  mirror: false,
  bleed: 0,
  marks: false,
  svg: plainSvgLook,
  paper: null,
};

/** How a file is written: what only an SVG can say does not count for another. */
export const lookOf = ({ format, svg }: Pick<Delivery, 'format' | 'svg'>): SvgLook =>
  format === 'svg' ? svg : plainSvgLook;
