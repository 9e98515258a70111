import { randomUUID } from 'node:crypto';
import { applyChange, type Change, type Drawing } from '../src/core';
import { changeOf } from '../src/core/change/changeOf';
import { addLine, moveLines } from '../src/core/edits/lines';
import { setSheet } from '../src/core/edits/sheets';
import { allLines } from '../src/core/drawing/items';
import { packed } from '../src/core/formats/packed';
import { wanderingLine } from '../src/core/test/drawings';
import { ask, type Opened } from '../src/bench/state/api';
import { keepSeen, pendingOf } from '../src/bench/state/pending';
import { bringAsidesBack } from '../src/bench/state/asides';
import { recoverPending, Saver, type SaveState } from '../src/bench/state/saver';
import { giveAgain, lookBack } from '../src/bench/state/wentBack';
import { noteAside } from './line';

/** What a tab has made, by id, in its order; and what its browser was told that it must keep as a file. */
export type Made = {
  readonly changes: Map<string, Change>;
  readonly stuck: Set<string>;
  /** Into which drawings of their own they were put. */
  readonly aside: Map<string, Set<string>>;
};

/** What happens, a line each, where `SOAK_LOOK` asks for it. */
function look(drawing: string, what: string): void {
  if (process.env.SOAK_LOOK)
    console.error(`   ${new Date().toISOString().slice(17, 23)} ${process.pid} ${drawing} ${what}`);
}

/** A tab of a simulated browser with a drawing open: what the bench does about keeping, with a hand that never rests. */
export class Tab {
  private drawing: Drawing | null = null;
  private saver: Saver | null = null;
  private state: SaveState = { kind: 'saved', revision: 0 };
  private isReading = true;

  constructor(
    readonly id: string,
    private readonly made: Made,
    private readonly random: () => number,
  ) {}

  /** Opens it as the bench does: what an earlier visit left first, then what the server lacks. @throws while it cannot. */
  async open(): Promise<void> {
    this.leave();
    const waiting = (await pendingOf(this.id)).map((p) => p.pending.change.id);
    const recovered = await recoverPending(this.id);
    if (recovered.kind !== 'none') look(this.id, `recovered: ${recovered.kind}, ${waiting.length} waited`);
    if (recovered.kind === 'aside') this.noteAside(waiting, recovered.id);
    if (recovered.kind === 'waiting') throw new Error(recovered.why);
    if (recovered.kind === 'stuck') this.noteStuck(recovered.changes);
    let opened = await this.read();
    let isBehind = recovered.kind === 'went back';
    // It may go back again while what it lacks is given: it is looked at until it lacks nothing.
    for (let back; (back = await lookBack(this.id, opened, isBehind)); isBehind = false) {
      const brought = await giveAgain(this.id, back, opened.revision === back.revision);
      const { sent, pending } = back.keys;
      look(
        this.id,
        `at ${opened.revision} gave ${sent.length} + ${pending.length} again after ${back.revision}: ${brought.kind}`,
      );
      if (brought.kind === 'stuck') this.noteStuck(brought.changes);
      if (brought.kind === 'aside')
        this.noteAside(
          back.changes.map((c) => c.id),
          brought.id,
        );
      opened = await this.read();
    }
    for (const { was, id } of await bringAsidesBack(this.id))
      for (const [change, asides] of this.made.aside) if (asides.has(was)) noteAside(this.made.aside, change, id);
    look(this.id, `opened at ${opened.revision} ${opened.last}`);
    this.drawing = opened.drawing;
    const bytes = packed(opened.drawing).buffer as ArrayBuffer;
    await keepSeen({ drawing: this.id, revision: opened.revision, bytes, at: Date.now() });
    const again = (why: string): void => {
      look(this.id, why);
      this.isReading = true;
    };
    this.saver = new Saver(
      this.id,
      opened.revision,
      {
        onState: (state) => (this.state = state),
        onRefused: () => again('refused'),
        onAside: (aside) => again(`aside in ${aside.id}`),
        onWentBack: () => again('went back'),
        onStuck: ({ changes }) => (again('stuck'), this.noteStuck(changes)),
      },
      opened.last,
    );
    this.state = { kind: 'saved', revision: opened.revision };
    this.isReading = false;
  }

  private async read(): Promise<Opened> {
    const opened = await ask<Opened>(`/api/drawings/${this.id}`);
    if (opened.damaged) throw new Error('It is damaged.');
    return opened;
  }

  private noteAside(ids: readonly string[], aside: string): void {
    for (const id of ids) noteAside(this.made.aside, id, aside);
  }

  private noteStuck(changes: readonly Change[]): void {
    for (const { id } of changes) this.made.stuck.add(id);
  }

  /** Whether it has to be opened anew before a hand can go on. */
  get mustReopen(): boolean {
    return this.isReading;
  }

  get isSaved(): boolean {
    return this.state.kind === 'saved';
  }

  /** A change by hand. */
  act(): void {
    if (this.isReading || !this.drawing || !this.saver) return;
    const d = this.drawing;
    const sheet = d.sheets[0];
    const lines = allLines(d);
    const what = this.random();
    const edit =
      what < 0.7 || lines.length === 0
        ? addLine(d, sheet.id, wanderingLine(`l-${randomUUID()}`, 1 + Math.floor(this.random() * 12), this.random))
        : what < 0.95
          ? moveLines(d, [lines[Math.floor(this.random() * lines.length)].id], { x: this.random() * 9, y: 1 })
          : setSheet(d, sheet.id, { name: `Sheet ${Math.floor(this.random() * 1e6)}` }, 'Rename sheet');
    const change = changeOf(edit, `c-${randomUUID()}`);
    this.drawing = applyChange(d, change);
    this.made.changes.set(change.id, change);
    this.saver.push(change);
  }

  /** It stops sending, as when it is closed. */
  leave(): void {
    this.isReading = true;
    this.saver?.stop();
    this.saver = null;
  }

  /** Another tab takes over: this one only reads from now on, and leaves to it what it has not sent. */
  onlyRead(): void {
    this.isReading = true;
    void this.saver?.handOver();
  }
}
