import type Database from 'better-sqlite3';
import { upgradedDrawing } from '@/core/drawing/upgrade';
import { isPacked, unpacked } from '@/core/formats/packed';
import { inflated } from '../snapshots';
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
  const snapshots = client.prepare('select revision from snapshots where drawing_id = ? order by revision').pluck();
  const revisions = snapshots.all(id) as number[];
  const sound = revisions.filter((r) => isReadable(client, id, r));
  for (const r of revisions.filter((r) => !sound.includes(r)))
    tell(`a snapshot (of change ${r}) cannot be read; an older one and the changes since are used in its place.`);
  if (sound.length === 0) tell('nothing of it can be read, for there is no snapshot.', false);
  let expected = 1;
  let before: string | null = null;
  const digest = hasDigests(client) ? 'digest' : 'null as digest';
  const rows = client
    .prepare(
      `select revision, change_id as changeId, label, body, ${digest} from journal where drawing_id = ? order by revision`,
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

function isReadable(client: Database.Database, id: string, revision: number): boolean {
  try {
    const row = client.prepare('select body from snapshots where drawing_id = ? and revision = ?').get(id, revision);
    const bytes = inflated((row as { body: Buffer }).body);
    if (isPacked(bytes)) unpacked(bytes);
    else upgradedDrawing(JSON.parse(bytes.toString('utf8')));
    return true;
  } catch {
    return false;
  }
}

/** Earlier programs' journals have none. */
const hasDigests = (client: Database.Database): boolean =>
  (client.pragma('table_info(journal)') as { name: string }[]).some((c) => c.name === 'digest');
