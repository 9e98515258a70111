import { and, asc, desc, eq, gt, inArray, lt, lte } from 'drizzle-orm';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { nanoid } from 'nanoid';
import type { Change, Drawing } from '@/core';
import { drawingOnGrid } from '@/core/change/onGrid';
import { SCHEMA_VERSION } from '@/core/drawing/schema';
import { asksForBase, planned, type Asked, type Before } from '../../planned';
import { logError } from '../../log';
import { notFound } from '../../problem';
import { noneReadable, readBack, replayed, whole, type State } from '../../replayed';
import { bodySoon, drawingIn, isOf } from '../../snapshotBody';
import type { Journal } from '../journals';
import { drawings, journal, snapshots } from './tables';

/** A PostgreSQL that Drizzle speaks to, by whichever driver, or a transaction of one. */
export type Postgres = PgDatabase<PgQueryResultHKT>;

/** So many drawings' newest states are remembered, and so many changes lie between two snapshots. */
const MOST_KNOWN = 100;
const SNAPSHOT_EVERY = 1_000;

/** The newest state of a drawing, and the digest of the change that made it: it counts as long as both are what is kept. */
type Known = State & { digest: string | null };

/**
 * A journal in PostgreSQL. A drawing's row is locked while changes are appended to it, so that whichever process asks, they come
 * one after the other; `synchronous_commit` is to be on, as it is by default.
 */
export class PgJournal implements Journal {
  private readonly known = new Map<string, Known>();
  private readonly underway = new Set<Promise<void>>();

  constructor(
    private readonly store: Postgres,
    private readonly snapshotEvery = SNAPSHOT_EVERY,
  ) {}

  /** Waits for the snapshots that are being taken. */
  async settled(): Promise<void> {
    await Promise.all(this.underway);
  }

  async begin(title: string, first: Drawing): Promise<string> {
    const id = nanoid(12);
    const { body } = await bodySoon(drawingOnGrid(first));
    await this.store.transaction(async (tx) => {
      await tx.insert(drawings).values({ id, title, revision: 0 });
      await tx.insert(snapshots).values({ drawingId: id, revision: 0, body });
    });
    return id;
  }

  async append(asked: Asked): Promise<{ revision: number }> {
    const { id, base, changes } = asked;
    const now = await this.store.transaction(async (tx): Promise<Known | null> => {
      const before = await this.before(tx, asked);
      const plan = planned(before, asked, Date.now());
      if (!plan) return null;
      const { drawing, revision, rows } = plan;
      await tx
        .insert(journal)
        .values(rows.map(({ label: _, ...row }) => ({ ...row, drawingId: id, schema: SCHEMA_VERSION })));
      await tx.update(drawings).set({ revision }).where(eq(drawings.id, id));
      return { drawing, revision, digest: rows.at(-1)!.digest };
    });
    if (!now) return { revision: base + changes.length };
    this.remember(id, now);
    const isDue = Math.floor(now.revision / this.snapshotEvery) > Math.floor(base / this.snapshotEvery);
    if (isDue) this.keepSnapshot(id, now);
    return { revision: now.revision };
  }

  async state(id: string, revision?: number): Promise<State> {
    const [card] = await this.store.select().from(drawings).where(eq(drawings.id, id));
    if (!card) throw notFound('drawing');
    if (revision !== undefined && revision > card.revision) throw notFound('revision');
    const found = await this.stateIn(this.store, id, revision ?? card.revision);
    if (found.revision === card.revision) this.remember(id, found);
    const { digest: _, ...state } = found;
    return state;
  }

  async history(id: string, before: number, most: number): Promise<{ from: number; changes: Change[] }> {
    const rows = await this.store
      .select({ body: journal.body, schema: journal.schema })
      .from(journal)
      .where(and(eq(journal.drawingId, id), lt(journal.revision, before)))
      .orderBy(desc(journal.revision))
      .limit(most);
    const changes = readBack(rows);
    return { from: before - changes.length, changes };
  }

  /** What is there before an append, with the drawing's row locked. @throws Problem 404 */
  private async before(tx: Postgres, asked: Asked): Promise<Before> {
    const { id, base, changes } = asked;
    const [card] = await tx.select().from(drawings).where(eq(drawings.id, id)).for('update');
    if (!card) throw notFound('drawing');
    const ids = changes.map((c) => c.id);
    const made = await tx
      .select({ id: journal.changeId, revision: journal.revision })
      .from(journal)
      .where(and(eq(journal.drawingId, id), inArray(journal.changeId, ids)));
    return {
      ...(await this.stateIn(tx, id, card.revision)),
      atBase: asksForBase(asked, card.revision) ? (await rowAt(tx, id, base))?.changeId : undefined,
      made: new Map(made.map((m) => [m.id, m.revision])),
    };
  }

  /** A drawing at a revision that it has. @throws Problem 409 where its journal is damaged before. */
  private async stateIn(tx: Postgres, id: string, revision: number): Promise<Known> {
    const digest = (await rowAt(tx, id, revision))?.digest ?? null;
    const known = this.known.get(id);
    if (known?.revision === revision && known.digest === digest) return known;
    const start = await startOf(tx, id, revision);
    const since = await tx
      .select({ revision: journal.revision, body: journal.body, schema: journal.schema })
      .from(journal)
      .where(and(eq(journal.drawingId, id), gt(journal.revision, start.revision), lte(journal.revision, revision)))
      .orderBy(asc(journal.revision));
    const state = whole(replayed(start, since, revision));
    return { ...state, digest };
  }

  /** Beside the saving: when it fails the journal holds all. A drawing with another past by then tells by its digest. */
  private keepSnapshot(id: string, { revision, drawing, digest }: Known): void {
    const job = bodySoon(drawing)
      .then(({ body }) =>
        this.store
          .insert(snapshots)
          .values({ drawingId: id, revision, body, digest })
          .onConflictDoUpdate({ target: [snapshots.drawingId, snapshots.revision], set: { body, digest } }),
      )
      .then(() => undefined, logError)
      .finally(() => this.underway.delete(job));
    this.underway.add(job);
  }

  private remember(id: string, now: Known): void {
    this.known.delete(id);
    this.known.set(id, now);
    if (this.known.size > MOST_KNOWN) this.known.delete(this.known.keys().next().value!);
  }
}

async function rowAt(tx: Postgres, id: string, revision: number): Promise<{ changeId: string; digest: string } | null> {
  const [row] = await tx
    .select({ changeId: journal.changeId, digest: journal.digest })
    .from(journal)
    .where(and(eq(journal.drawingId, id), eq(journal.revision, revision)));
  return row ?? null;
}

/** The newest snapshot up to a revision that can be read and is of the journal's own past. @throws Problem 409 where none is. */
async function startOf(tx: Postgres, id: string, revision: number): Promise<State> {
  const all = await tx
    .select({ revision: snapshots.revision, digest: snapshots.digest, of: journal.digest })
    .from(snapshots)
    .leftJoin(journal, and(eq(journal.drawingId, snapshots.drawingId), eq(journal.revision, snapshots.revision)))
    .where(and(eq(snapshots.drawingId, id), lte(snapshots.revision, revision)))
    .orderBy(desc(snapshots.revision));
  let why: string | undefined;
  for (const { revision: at } of all.filter((s) => isOf(s.digest, s.of))) {
    const [{ body }] = await tx
      .select({ body: snapshots.body })
      .from(snapshots)
      .where(and(eq(snapshots.drawingId, id), eq(snapshots.revision, at)));
    try {
      return { revision: at, drawing: drawingIn(body) };
    } catch (error) {
      why = (error as Error).message;
    }
  }
  throw noneReadable(why);
}
