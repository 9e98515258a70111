import { packed } from '@/core/formats/packed';
import { wanderingDrawing } from '@/core/test/drawings';
import { openAhead } from './ahead';
import { takeAhead } from './state/ahead';
import { plainLooks } from '@/painting/paintLine';
import { startEarly } from './canvas/earlyPainter';
import { takePainters } from './canvas/painters';

const told: string[] = [];
let workers = 0;
globalThis.Worker = class {
  constructor() {
    workers++;
  }
  postMessage({ kind }: { kind: string }): void {
    told.push(kind);
  }
  terminate(): void {}
} as never;

test('what a page needs is asked for once, and told to its painters; a page that has taken it is followed by another', async () => {
  const asked: string[] = [];
  const bytes = packed(wanderingDrawing(2, 2, 1));
  globalThis.fetch = (async (url: string) => {
    asked.push(url);
    const about = encodeURIComponent(JSON.stringify({ id: 'a', revision: 3 }));
    return { ok: true, headers: new Headers({ 'x-drawing': about }), arrayBuffer: async () => bytes.buffer };
  }) as never;
  // Where there is no browser there is nothing to be done.
  openAhead('a');
  expect([asked, workers]).toEqual([[], 0]);
  Object.assign(globalThis, { window: globalThis, innerWidth: 800, innerHeight: 600 });
  openAhead('a');
  openAhead('a');
  expect(asked).toEqual(['/api/drawings/a/packed']);
  const count = workers;
  expect(count).toBeGreaterThan(0);
  expect((await takeAhead('a'))?.about).toMatchObject({ id: 'a', revision: 3 });
  expect(told[0]).toBe('read');
  takePainters();
  expect(takeAhead('a')).toBeNull();
  openAhead('a');
  openAhead('b');
  expect(asked.slice(1)).toEqual(['/api/drawings/a/packed', '/api/drawings/b/packed']);
  expect(workers).toBe(2 * count);
  // The page before lets go of its own alone; what is let go of is asked for anew.
  expect(takeAhead('a')).toBeNull();
  expect(takeAhead('b')).not.toBeNull();
  openAhead('b');
  expect(asked).toHaveLength(4);
});

test('what the page has asked for by itself is not asked for again, but where it has not come', async () => {
  takePainters();
  const started: { hear: (e: { data: unknown }) => void }[] = [];
  globalThis.Worker = class {
    hear = (_: { data: unknown }): void => undefined;
    addEventListener(kind: string, hear: (e: { data: unknown }) => void): void {
      if (kind === 'message') this.hear = hear;
    }
    constructor() {
      started.push(this);
    }
    postMessage(): void {}
    terminate(): void {}
  } as never;
  const bytes = packed(wanderingDrawing(2, 2, 1)).buffer;
  let asked = 0;
  const about = encodeURIComponent(JSON.stringify({ id: 'c', revision: 4 }));
  globalThis.fetch = (async () => {
    asked++;
    return { ok: true, headers: new Headers({ 'x-drawing': about }), arrayBuffer: async () => bytes };
  }) as never;
  for (const comes of [true, false]) {
    const id = comes ? 'c' : 'd';
    startEarly('/painter.js', id, `/${id}`, plainLooks);
    const early = started.at(-1)!;
    openAhead(id);
    early.hear({ data: { kind: 'fetched', packed: comes ? { about, bytes } : null } });
    expect((await takeAhead(id))?.about).toMatchObject({ id: 'c', revision: 4 });
    expect(asked).toBe(comes ? 0 : 1);
    // The page never came to be, and another drawing is opened.
    openAhead('e');
    await takeAhead('e');
    expect(asked).toBe(comes ? 1 : 2);
    asked = comes ? 0 : asked;
    takePainters().end();
  }
});
