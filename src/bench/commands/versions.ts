import type { Drawing } from '@/core';
import { differencesOf } from '@/core/scene/differences';
import { goneBackTo } from '@/core/edits/diff';
import { deleteVersion, listVersions, openVersion, postVersion, type Version } from '../state/api';
import { drawingAt } from '../state/history';
import type { Bench } from '../state/store';

/** How long what is drawn may take to be saved before a version of it is kept, ms. */
const SAVED_MS = 8_000;

/** Looks up which versions there are. */
export async function loadVersions(bench: Bench): Promise<void> {
  const found = await listVersions(bench.getState().id).catch((e: Error) => {
    bench.tell(`The versions cannot be listed just now: ${e.message}`, undefined, 'warning');
    return null;
  });
  if (found) bench.setState({ versions: found.versions });
}

/** Keeps the drawing as it is now, by name and with a note. False when that was not possible; then it has been said why. */
export async function keepVersion(bench: Bench, name: string, note = ''): Promise<boolean> {
  const revision = await savedRevision(bench);
  if (revision === null) {
    bench.tell('No version was kept: some changes are not saved yet. Try again when they are.', undefined, 'warning');
    return false;
  }
  return keepAt(bench, name, revision, note);
}

/** The same of the drawing as it was at a revision. */
export async function keepAt(bench: Bench, name: string, revision: number, note = ''): Promise<boolean> {
  const { id } = bench.getState();
  const kept = await postVersion(id, name, revision, note).catch((e: Error) => {
    bench.tell(`No version was kept: ${e.message}`, undefined, 'warning');
    return null;
  });
  if (!kept) return false;
  bench.tell(`“${kept.name}” is kept.`);
  bench.setState((s) => ({ versions: [kept, ...(s.versions ?? [])] }));
  return true;
}

/** The revision under which all that was done is saved; null when that takes too long. */
function savedRevision(bench: Bench): Promise<number | null> {
  return new Promise((done) => {
    const look = (): boolean => {
      const { save } = bench.getState();
      if (save.kind !== 'saved') return false;
      finish(save.revision);
      return true;
    };
    const finish = (revision: number | null): void => {
      clearTimeout(timer);
      stop();
      done(revision);
    };
    const timer = setTimeout(() => finish(null), SAVED_MS);
    const stop = bench.subscribe(() => look());
    look();
  });
}

const opened = (bench: Bench, v: Version) =>
  openVersion(bench.getState().id, v.id).catch((e: Error) => {
    bench.tell(`“${v.name}” cannot be opened just now: ${e.message}`, undefined, 'warning');
    return null;
  });

/** Holding the before key shows the drawing as it was at a version. */
export async function compareWith(bench: Bench, v: Version): Promise<void> {
  const then = await opened(bench, v);
  if (!then) return;
  bench.setState({ before: { drawing: then.drawing, label: `as “${v.name}”`, version: v.id } });
  bench.tell(`Hold X to see it as “${v.name}”.`);
}

/** Makes the drawing what it was at a version: a change like any other, taken back by undo. */
export async function goBackTo(bench: Bench, v: Version): Promise<void> {
  const then = await opened(bench, v);
  if (!then) return;
  const edit = goneBackTo(bench.getState().drawing, then.drawing, v.name);
  const change = bench.commit(edit);
  if (change) bench.tell(`This is “${v.name}”.`, { label: 'Undo', run: () => bench.undo() });
  else bench.tell(`It is as “${v.name}” already.`);
}

/** Forgets a version; it can be had back as long as the message stands. */
export async function forgetVersion(bench: Bench, v: Version): Promise<void> {
  try {
    await deleteVersion(bench.getState().id, v.id);
  } catch (e) {
    bench.tell(`“${v.name}” stays: ${(e as Error).message}`, undefined, 'warning');
    return;
  }
  bench.setState((s) => ({ versions: s.versions?.filter((k) => k.id !== v.id) ?? null }));
  bench.tell(`“${v.name}” is forgotten.`, {
    label: 'Undo',
    run: () => void keepAt(bench, v.name, v.revision, v.note),
  });
}

/** A state of the drawing: at a revision, or as it is now. */
export type Moment = { readonly revision: number | null; readonly label: string };

const stateAt = async (bench: Bench, { revision }: Moment): Promise<Drawing> =>
  revision === null ? bench.getState().drawing : (await drawingAt(bench.getState().id, revision)).drawing;

/** Shows on the page what differs between two states. */
export async function showDifferences(bench: Bench, then: Moment, now: Moment): Promise<void> {
  try {
    const [a, b] = await Promise.all([stateAt(bench, then), stateAt(bench, now)]);
    bench.setState({ differences: { found: differencesOf(a, b), label: `${then.label} → ${now.label}` } });
  } catch (e) {
    bench.tell(`They cannot be compared just now: ${(e as Error).message}`, undefined, 'warning');
  }
}

/** Makes the drawing what it was at a revision: a change like any other, taken back by undo. */
export async function goBackToMoment(bench: Bench, moment: Moment): Promise<void> {
  try {
    const then = await stateAt(bench, moment);
    const change = bench.commit(goneBackTo(bench.getState().drawing, then, moment.label));
    if (change) bench.tell(`This is ${moment.label}.`, { label: 'Undo', run: () => bench.undo() });
    else bench.tell(`It is as at ${moment.label} already.`);
  } catch (e) {
    bench.tell(`It cannot be gone back to just now: ${(e as Error).message}`, undefined, 'warning');
  }
}
