import { createHash } from 'node:crypto';
import { readFile, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { desc, eq } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import type { Delivery } from '@/core/deliver/delivery';
import { fileName } from '@/core/deliver/files';
import { mimeOf } from '@/core/deliver/fileFormats';
import { database } from '../database';
import { cardOf } from '../drawings';
import { leftOut } from '../files/leftOut';
import { filesWanted } from '../files/wantedFiles';
import { stateOf } from '../journal';
import { folder } from '../place';
import { logError } from '../log';
import { notFound, Problem } from '../problem';
import { exportedDrawing } from '../render';
import { handIns } from '../tables';
import { LineBroke, Refused, type Courier } from './place';
import { SimulatedCourier } from './simulatedCourier';

export type HandIn = typeof handIns.$inferSelect;

const kept = globalThis as typeof globalThis & {
  yellowQuillCourier?: Courier;
  yellowQuillSending?: Map<string, AbortController>;
};

/** The one way to the places; tests put their own here. */
export const courierInUse = (): Courier => (kept.yellowQuillCourier ??= new SimulatedCourier());
export const useCourier = (courier: Courier): void => void (kept.yellowQuillCourier = courier);
const sending = (kept.yellowQuillSending ??= new Map());

export const handedFile = (id: string): string => path.join(folder('outbox'), id);

const set = (id: string, some: Partial<HandIn>): void =>
  void database().update(handIns).set(some).where(eq(handIns.id, id)).run();

/** @throws Problem 404. */
export function handInOf(id: string): HandIn {
  const row = database().select().from(handIns).where(eq(handIns.id, id)).get();
  if (!row) throw notFound('hand-in');
  return settled(row);
}

/** What was handed in of a drawing, the last first. */
export const handInsOf = (drawing: string): HandIn[] =>
  database()
    .select()
    .from(handIns)
    .where(eq(handIns.drawingId, drawing))
    .orderBy(desc(handIns.at), desc(handIns.id))
    .all()
    .map(settled);

/** One that was under way when the program was stopped did not arrive. */
function settled(row: HandIn): HandIn {
  if (row.state !== 'sending' || sending.has(row.id)) return row;
  const ended = { state: 'failed', reason: 'The program was stopped while it was being sent.' } as const;
  set(row.id, ended);
  return { ...row, ...ended };
}

/**
 * Makes a file of a drawing as it is now, keeps it, and begins to send it to a place; one that lacks a picture only if that is
 * said to be `lacking` all the same.
 * @throws Problem 400 for more than one file or none, 404 for a drawing or place that is not there, 409 where a picture is lacking.
 */
export async function handIn(drawingId: string, place: string, wanted: Delivery, lacking = false): Promise<HandIn> {
  const { title, revision } = cardOf(drawingId);
  if (!(await courierInUse().places()).some((p) => p.id === place)) throw notFound('place');
  const { drawing } = stateOf(drawingId, revision);
  const [file, ...more] = filesWanted(drawing, wanted);
  if (more.length > 0) throw new Problem(400, 'several', 'One file is handed in at a time. Choose one of all.');
  const missing = lacking ? null : await leftOut([{ ...file, wanted }]);
  if (missing) throw new Problem(409, 'lacking', `The file would lack ${missing}. Nothing was handed in.`);
  const bytes = await exportedDrawing(file.drawing, wanted, { title, ...(file.beside && { beside: file.beside }) });
  const id = nanoid(16);
  await writeFile(handedFile(id), bytes);
  const row: HandIn = {
    id,
    drawingId,
    revision,
    place,
    state: 'sending',
    name: fileName([title, file.name], wanted.format),
    mime: mimeOf[wanted.format],
    bytes: bytes.length,
    sha256: createHash('sha256').update(bytes).digest('hex'),
    sent: 0,
    tries: 0,
    receipt: null,
    receivedAt: null,
    reason: null,
    at: Date.now(),
  };
  database().insert(handIns).values(row).run();
  return send(row, title);
}

/** Sends the very bytes again. @throws Problem 404; 409 while it is being sent, or when it was received. */
export async function sendAgain(id: string): Promise<HandIn> {
  const row = handInOf(id);
  if (row.state === 'sending') throw new Problem(409, 'sending', 'It is being sent already.');
  if (row.state === 'received') throw new Problem(409, 'received', 'It was received already.');
  return send(row, cardOf(row.drawingId).title);
}

/** Begins to send what is kept; how that ends is told by the row. */
function send(row: HandIn, title: string): HandIn {
  const begun: HandIn = { ...row, state: 'sending', sent: 0, tries: row.tries + 1, reason: null };
  set(row.id, begun);
  const stop = new AbortController();
  sending.set(row.id, stop);
  const { revision, name, mime, bytes, sha256, place } = begun;
  void readFile(handedFile(row.id))
    .then((file) =>
      courierInUse().send(place, { title, revision, name, mime, bytes, sha256 }, file, {
        tries: begun.tries,
        onSent: (sent) => set(row.id, { sent }),
        signal: stop.signal,
      }),
    )
    .then(
      ({ number, at }) => set(row.id, { state: 'received', receipt: number, receivedAt: at, sent: bytes }),
      (error: unknown) => {
        if (!(error instanceof Refused || error instanceof LineBroke) && !stop.signal.aborted) logError(error);
        const isTold = error instanceof Refused || error instanceof LineBroke;
        const reason = isTold ? error.message : stop.signal.aborted ? 'It was called off.' : 'It could not be sent.';
        set(row.id, { state: error instanceof Refused ? 'refused' : 'failed', reason });
      },
    )
    .finally(() => sending.delete(row.id));
  return begun;
}

/** Calls one off that is being sent; one that has ended is forgotten, unless it was received. @throws Problem 404, 409. */
export async function dropHandIn(id: string): Promise<void> {
  const row = handInOf(id);
  if (row.state === 'sending') return void sending.get(id)?.abort();
  if (row.state === 'received') throw new Problem(409, 'received', 'What was received stays listed.');
  database().delete(handIns).where(eq(handIns.id, id)).run();
  await rm(handedFile(id), { force: true });
}
