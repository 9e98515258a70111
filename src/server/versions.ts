import { and, desc, eq } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import type { Drawing } from '@/core';
import { goneBackTo } from '@/core/edits/diff';
import { database } from './database';
import { cardOf } from './drawings';
import { appendChanges } from './append';
import { stateOf } from './journal';
import { notFound } from './problem';
import { versions } from './tables';

export type Version = Omit<typeof versions.$inferSelect, 'drawingId'>;

const shown = ({ drawingId: _, ...version }: typeof versions.$inferSelect): Version => version;

/** The versions of a drawing, the last kept first. @throws Problem 404 for a drawing that is not there. */
export function listVersions(drawing: string): Version[] {
  cardOf(drawing);
  return database()
    .select()
    .from(versions)
    .where(eq(versions.drawingId, drawing))
    .orderBy(desc(versions.at), desc(versions.revision))
    .all()
    .map(shown);
}

/**
 * Keeps a drawing as it is, or as it was at a revision, by name.
 * @throws Problem 404 for a drawing or a revision that is not there.
 */
export function keepVersion(drawing: string, name: string, revision = cardOf(drawing).revision, note = ''): Version {
  const kept = {
    id: nanoid(12),
    drawingId: drawing,
    name,
    note,
    revision: stateOf(drawing, revision).revision,
    at: Date.now(),
  };
  database().insert(versions).values(kept).run();
  return shown(kept);
}

/** A version, and the drawing as it was then. @throws Problem 404. */
export function versionOf(drawing: string, version: string): Version & { drawing: Drawing } {
  const row = database()
    .select()
    .from(versions)
    .where(and(eq(versions.drawingId, drawing), eq(versions.id, version)))
    .get();
  if (!row) throw notFound('version');
  return { ...shown(row), drawing: stateOf(drawing, row.revision).drawing };
}

/** Makes the drawing what it was at a version. That is a change like any other: nothing of what came since is lost. */
export function restoreVersion(drawing: string, version: string): { revision: number } {
  const then = versionOf(drawing, version);
  const now = stateOf(drawing);
  const edit = goneBackTo(now.drawing, then.drawing, then.name);
  if (edit.steps.length === 0) return { revision: now.revision };
  return appendChanges(drawing, now.revision, [{ id: nanoid(12), ...edit }]);
}

/** Forgets a version's name; the journal keeps all states. @throws Problem 404. */
export function dropVersion(drawing: string, version: string): void {
  const { changes } = database()
    .delete(versions)
    .where(and(eq(versions.drawingId, drawing), eq(versions.id, version)))
    .run();
  if (changes === 0) throw notFound('version');
}
