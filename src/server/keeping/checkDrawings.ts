import type Database from 'better-sqlite3';
import { drawingIn, isOf } from '../snapshotBody';
import { digestOf } from './digest';

/** Hears of something that is not as it was put there, of which drawing, and whether that opens as it is all the same. */
type Found = (words: string, drawing: string, opens: boolean) => void;

/** Looks through the journals, by their digests, and the snapshots of all drawings in a database; how many there are. */
export function checkDrawings(client: Database.Database, found: Found): { drawings: number; changes: number } {
  const cards = client.prepare('select id, title, revision from drawings').all() as Card[];
  let changes = 0;
  for (const card of cards) changes += checkDrawing(client, card, found);
  return { drawings: cards.length, changes };
}

type Card = { id: string; title: string; revision: number };
type Row = { revision: number; changeId: string; label: string; body: string; digest: string | null };

/** Looks through a drawing's journal and snapshots; how many changes it has. */
function checkDrawing(client: Database.Database, { id, title, revision }: Card, found: Found): number {
  const tell = (words: string, opens = true): void => found(`“${title}”: ${words}`, id, opens);
  const sound: number[] = [];
  for (const snapshot of snapshotsOf(client, id)) {
    const why = snapshotTrouble(client, id, snapshot);
    if (why === null) sound.push(snapshot.revision);
    else
      tell(
        `a snapshot (of change ${snapshot.revision}) ${why}; an older one and the changes since are used in its place.`,
      );
  }
  if (sound.length === 0) tell('nothing of it can be read, for there is no snapshot.', false);
  let expected = 1;
  let before: string | null = null;
  const rows = client
    .prepare(
      `select revision, change_id as changeId, label, body, ${digestIn(client, 'journal', 'journal')} as digest from journal where drawing_id = ? order by revision`,
    )
    .iterate(id) as IterableIterator<Row>;
  let bad: number | null = null;
  for (const row of rows) {
    const isNext = row.revision === expected;
    const isWhole = row.digest === null ? before === null : row.digest === digestOf(before, row);
    if (bad === null && !(isNext && isWhole)) bad = isNext ? row.revision : expected;
    expected = row.revision + 1;
    before = row.digest;
  }
  if (bad === null && expected !== revision + 1) bad = expected;
  if (bad !== null) {
    const beyond = sound.some((r) => r >= bad);
    tell(
      `change ${bad} of ${revision} is damaged or missing. ${beyond ? 'A later snapshot is sound, so the drawing opens as it is.' : `It opens as it was after change ${bad - 1}; a copy goes on from there.`}`,
      beyond,
    );
  }
  return expected - 1;
}

/** A snapshot with its digest, and with that of the change that it stands beside. */
type Snapshot = { revision: number; digest: string | null; change: string | null };

const snapshotsOf = (client: Database.Database, id: string): Snapshot[] =>
  client
    .prepare(
      `select s.revision, ${digestIn(client, 'snapshots', 's')} as digest, ${digestIn(client, 'journal', 'j')} as change
       from snapshots s left join journal j on j.drawing_id = s.drawing_id and j.revision = s.revision
       where s.drawing_id = ? order by s.revision`,
    )
    .all(id) as Snapshot[];

/** Why a snapshot is of no use, in words; null where it is sound. */
function snapshotTrouble(client: Database.Database, id: string, { revision, digest, change }: Snapshot): string | null {
  if (!isOf(digest, change)) return 'is of another past than the changes';
  try {
    const row = client.prepare('select body from snapshots where drawing_id = ? and revision = ?').get(id, revision);
    drawingIn((row as { body: Buffer }).body);
    return null;
  } catch {
    return 'cannot be read';
  }
}

/** The digests in a table that goes by a name; earlier programs' tables have none. */
const digestIn = (client: Database.Database, table: string, name: string): string =>
  (client.pragma(`table_info(${table})`) as { name: string }[]).some((c) => c.name === 'digest')
    ? `${name}.digest`
    : 'null';
