import { z } from 'zod';

/** What a `.yquill` package says of itself: `docs/package.md`. */

export const PACKAGE_VERSION = 1;

const sha256 = z.string().regex(/^[0-9a-f]{64}$/);
const revision = z.number().int().min(0).max(10_000_000);
const time = z.number().int().min(0).max(1e15);

export const manifestSchema = z.object({
  format: z.literal('yquill'),
  version: z.number().int().min(1).max(PACKAGE_VERSION),
  drawings: z
    .array(
      z.object({
        folder: z.string().regex(/^drawings\/\d{1,6}$/),
        title: z.string().max(200),
        stage: z.string().regex(/^[a-z]{1,20}$/),
        revision,
        createdAt: time,
        changedAt: time,
        versions: z
          .array(z.object({ name: z.string().max(200), note: z.string().max(2_000).optional(), revision, at: time }))
          .max(10_000),
      }),
    )
    .min(1)
    .max(10_000),
  /** Every other file in the package, with what its bytes come to. */
  files: z.record(z.string().max(200), z.object({ bytes: z.number().int().min(0), sha256 })),
});
export type Manifest = z.infer<typeof manifestSchema>;

/** A change as the journal holds it; `body` is the change's own JSON. */
export const rowSchema = z.object({
  revision,
  id: z.string().regex(/^[A-Za-z0-9_-]{1,60}$/),
  label: z.string().max(500),
  at: time,
  schema: z.number().int().min(1).max(1_000),
  change: z.unknown(),
});
export type Row = z.infer<typeof rowSchema>;

/** The names of a package's files; no other is looked at. */
export const FILE_NAME =
  /^(?:manifest\.json|drawings\/\d{1,6}\/(?:first\.json|changes\.jsonl|drawing\.json|preview\.webp)|pictures\/[0-9a-f]{64})$/;
