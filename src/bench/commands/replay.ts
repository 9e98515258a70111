import type { Drawing } from '@/core';
import { applyChange } from '@/core';
import { upgradedChange } from '@/core/change/upgradeChange';
import { drawnLines, setOrder } from '@/core/replay/order';
import { shortestTravel } from '@/core/replay/shortestTravel';
import { timelineOf, type Pace, type Timeline } from '@/core/replay/timing';
import { drawingHistory, drawingAt, journalOf } from '../state/history';
import { preferences } from '../state/preferences';
import type { Bench } from '../state/store';

/** The replay on the page: lines in their order, or the drawing as it came about. */

export const paceOf = ({ by, length, speed, pause }: ReturnType<typeof preferences.getState>['replay']): Pace => ({
  ...(by === 'length' ? { length } : { speed }),
  pause,
});

const known = new WeakMap<Drawing, { key: string; timeline: Timeline }>();

/** The timeline of a drawing at the pace that is set; found once for each. */
export function timelineNow(drawing: Drawing, pace: Pace): Timeline {
  const key = JSON.stringify(pace);
  let found = known.get(drawing);
  if (found?.key !== key) known.set(drawing, (found = { key, timeline: timelineOf(drawing, pace) }));
  return found.timeline;
}

/** What is under way, by a number: what was asked for before something else was does not begin, or go on, after it. */
const turns = new WeakMap<Bench, number>();
const newTurn = (bench: Bench): number => {
  const turn = (turns.get(bench) ?? 0) + 1;
  turns.set(bench, turn);
  return turn;
};

/** Shows the drawing as far as it is drawn at a time, and stays there. */
export function seek(bench: Bench, at: number): void {
  newTurn(bench);
  showAt(bench, at, false);
}

function showAt(bench: Bench, at: number, runs: boolean): void {
  const { drawing } = bench.getState();
  const timeline = timelineNow(drawing, paceOf(preferences.getState().replay));
  bench.setState({ replay: { kind: 'order', timeline, at: Math.min(timeline.total, Math.max(0, at)), runs } });
  watch(bench);
}

/** Begins, or goes on from where it was halted; from the start when it had ended. */
export function play(bench: Bench): void {
  const { replay, drawing } = bench.getState();
  const { total } = timelineNow(drawing, paceOf(preferences.getState().replay));
  const from = replay?.kind === 'order' && replay.at < total ? replay.at : 0;
  const begin = performance.now() - from * 1000;
  showAt(bench, from, true);
  run(bench, newTurn(bench), (now) => {
    const at = (now - begin) / 1000;
    showAt(bench, at, at < total);
  });
}

/** The drawing as it came about, from its journal, within so many seconds. */
export async function playHistory(bench: Bench, seconds: number): Promise<void> {
  const turn = newTurn(bench);
  const { id } = bench.getState();
  try {
    const [{ drawing }, { rows }] = await Promise.all([drawingAt(id, 0), journalOf(id)]);
    if (turns.get(bench) !== turn) return;
    let [state, done] = [drawing, 0];
    const show = (): void => bench.setState({ replay: { kind: 'history', drawing: state, runs: done < rows.length } });
    show();
    watch(bench);
    const begin = performance.now();
    run(bench, turn, (now) => {
      const wanted = Math.min(rows.length, Math.floor(((now - begin) / 1000 / seconds) * rows.length));
      for (; done < wanted; done++)
        state = applyChange(state, upgradedChange(JSON.parse(rows[done].body), rows[done].schema));
      show();
    });
  } catch (error) {
    leave(bench);
    bench.tell(`The history cannot be replayed: ${(error as Error).message}`, undefined, 'warning');
  }
}

/** Goes on frame by frame for as long as the replay runs, and nothing else is wanted. */
function run(bench: Bench, turn: number, step: (now: number) => void): void {
  requestAnimationFrame((now) => {
    if (turns.get(bench) !== turn || !bench.getState().replay?.runs) return;
    try {
      step(now);
    } catch (error) {
      leave(bench);
      bench.tell(`The replay had to end: ${(error as Error).message}`, undefined, 'warning');
    }
    run(bench, turn, step);
  });
}

/** Stays where it is. */
export function halt(bench: Bench): void {
  newTurn(bench);
  bench.setState((s) => ({ replay: s.replay && { ...s.replay, runs: false } }));
}

/** Back to the drawing as it is. */
export function leave(bench: Bench): void {
  newTurn(bench);
  if (bench.getState().replay) bench.setState({ replay: null });
}

const watched = new WeakSet<Bench>();

/** Whoever goes on drawing, or to another stage, sees the drawing as it is. */
function watch(bench: Bench): void {
  if (watched.has(bench)) return;
  watched.add(bench);
  const stop = bench.subscribe((s, before) => {
    const isOver = s.drawing !== before.drawing || s.stage !== before.stage || s.preview !== before.preview;
    if (!isOver && s.replay) return;
    stop();
    watched.delete(bench);
    leave(bench);
  });
}

/** The order in which the lines were drawn, as the journal tells. */
export async function orderAsDrawn(bench: Bench): Promise<void> {
  try {
    const { order } = await drawingHistory(bench.getState().id);
    const { drawing } = bench.getState();
    const there = new Set(drawnLines(drawing).map((x) => x.line.id));
    bench.commit(
      setOrder(
        drawing,
        order.filter((id) => there.has(id)),
        'Order as drawn',
      ),
      null,
      'That is the order already.',
    );
  } catch (error) {
    bench.tell(`The history cannot be read: ${(error as Error).message}`, undefined, 'warning');
  }
}

/** Less far for the lifted pen, within parts. */
export function orderByTravel(bench: Bench): void {
  const { drawing } = bench.getState();
  const ids = shortestTravel(drawnLines(drawing)).map((x) => x.line.id);
  bench.commit(setOrder(drawing, ids, 'Order by travel'), null, 'No shorter way was found.');
}

/** As they lie, from the bottom of the stack. */
export const orderAsTheyLie = (bench: Bench): void =>
  void bench.commit(setOrder(bench.getState().drawing, null, 'Order as they lie'), null, 'That is the order already.');
