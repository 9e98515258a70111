import type { Reference } from '@/core';
import { placedReference } from '@/core/edits/references';
import { firstCorrections } from '@/core/raster/correction';
import { testPage } from '@/core/test/drawings';
import { PictureStore } from './pictures';

class Bitmap {
  closed = false;
  constructor(readonly name: string) {}
  close(): void {
    this.closed = true;
  }
}
globalThis.ImageBitmap = Bitmap as never;

/** What the worker was asked for, each with the way to answer. */
let asked: { size: string; kinds: string; answer: (ok: boolean) => Promise<void> }[] = [];
jest.mock('../state/corrections', () => ({
  sourceOf: () => ({}),
  correct: {
    render: (_: unknown, list: { kind: string }[], size: string) =>
      new Promise((resolve, reject) => {
        const kinds = list.map((c) => c.kind).join();
        const answer = async (ok: boolean): Promise<void> => {
          if (ok) resolve(new Bitmap(`${size} ${kinds}`));
          else reject(new Error('broken'));
          await new Promise((r) => setTimeout(r, 0));
        };
        asked.push({ size, kinds, answer });
      }),
  },
}));

const plain = placedReference(testPage, {
  id: 'r',
  name: 'x',
  picture: 'a'.repeat(64),
  pixelWidth: 100,
  pixelHeight: 80,
  dpi: null,
});
const withGrey: Reference = { ...plain, corrections: [firstCorrections.grey] };
const withBoth: Reference = { ...plain, corrections: [firstCorrections.grey, firstCorrections.invert] };

let news: number;
let failures: string[];
let store: PictureStore;
const shown = (r: Reference, moving = false): string | undefined =>
  (store.bitmapFor(r, 500, moving) as unknown as Bitmap | null)?.name;
beforeEach(() => {
  asked = [];
  news = 0;
  failures = [];
  store = new PictureStore(
    () => news++,
    (r) => failures.push(r.id),
  );
});

test('a corrected picture is made once, shown when it comes, and not asked for again', async () => {
  expect(shown(withGrey)).toBeUndefined();
  expect(shown(withGrey)).toBeUndefined();
  expect(asked.map((a) => [a.size, a.kinds])).toEqual([['whole', 'grey']]);
  await asked[0].answer(true);
  expect(news).toBe(1);
  expect(shown(withGrey)).toBe('whole grey');
  expect(asked).toHaveLength(1);
});

test('while a hand moves, reduced ones are made one at a time, the newest asked for last; the one before is shown meanwhile', async () => {
  shown(withGrey);
  await asked[0].answer(true);
  expect(shown(withBoth, true)).toBe('whole grey');
  expect(shown(withBoth, true)).toBe('whole grey');
  expect(asked.map((a) => a.size)).toEqual(['whole', 'preview']);
  await asked[1].answer(true);
  expect(shown(withBoth, true)).toBe('preview grey,invert');
  // At rest the whole one is made.
  shown(withBoth);
  expect(asked.at(-1)).toMatchObject({ size: 'whole', kinds: 'grey,invert' });
});

test('what moves may be something else: the whole picture is not made worse for it', async () => {
  shown(withGrey);
  await asked[0].answer(true);
  expect(shown({ ...withGrey, dim: 0.7 }, true)).toBe('whole grey');
  expect(asked).toHaveLength(1);
});

test('a tint is a correction like the others; switched off, nothing is made', () => {
  shown({ ...plain, tint: '#112233' });
  expect(asked[0].kinds).toBe('tint');
  globalThis.fetch = (() => new Promise(() => {})) as never;
  store.bitmapFor({ ...plain, corrections: [{ ...firstCorrections.grey, on: false }] }, 500, false);
  expect(asked).toHaveLength(1);
});

test('one that cannot be made is told once, and bitmaps are let go of in the end', async () => {
  shown(withGrey);
  await asked[0].answer(false);
  expect(failures).toEqual(['r']);
  expect(shown(withGrey)).toBeUndefined();
  shown(withBoth);
  await asked[1].answer(true);
  const bitmap = store.bitmapFor(withBoth, 500, false) as unknown as Bitmap;
  store.dispose();
  expect(bitmap.closed).toBe(true);
});

test('while one of another shape is made, the one before stays where it was', async () => {
  globalThis.fetch = (() => new Promise(() => {})) as never;
  const seen = (r: Reference) => {
    const { placed, bitmap } = store.seen(r, 500, false);
    return [placed.width, (bitmap as unknown as Bitmap | null)?.name];
  };
  const crop = { ...firstCorrections.crop, left: 0.5 };
  const cropped: Reference = { ...plain, width: plain.width / 2, corrections: [crop] };
  const narrow: Reference = { ...plain, width: plain.width / 4, corrections: [{ ...crop, left: 0.75 }] };
  // Never seen before, there is nothing that could stay.
  expect(seen(cropped)).toEqual([cropped.width, undefined]);
  await asked[0].answer(true);
  expect(seen(cropped)).toEqual([cropped.width, 'whole crop']);
  // Cropped closer, the wider one is seen in its own place until the new one is there.
  expect(seen(narrow)).toEqual([cropped.width, 'whole crop']);
  await asked[1].answer(true);
  expect(seen(narrow)).toEqual([narrow.width, 'whole crop']);
  // Moved, it is where it is.
  expect(seen({ ...narrow, at: { x: 77, y: 0 } })[0]).toBe(narrow.width);
});

test('while the view is on the move what is at hand must do; a finer one is fetched once it is at rest', async () => {
  const fetched: string[] = [];
  globalThis.fetch = (async (url: string) => {
    const size = String(url).split('size=')[1];
    fetched.push(size);
    return { ok: true, blob: async () => size };
  }) as never;
  globalThis.createImageBitmap = (async (size: string) => new Bitmap(size)) as never;
  const at = async (longest: number, isViewMoving: boolean): Promise<string | undefined> => {
    store.isViewMoving = isViewMoving;
    const { name } = (store.bitmapFor(plain, longest, false) ?? {}) as Bitmap;
    await new Promise((r) => setTimeout(r, 0));
    return name;
  };
  // Where there is none at all one is fetched at once.
  expect([await at(900, true), await at(900, true)]).toEqual([undefined, 'quarter']);
  expect([await at(4000, true), await at(2000, true)]).toEqual(['quarter', 'quarter']);
  expect(fetched).toEqual(['quarter']);
  expect([await at(4000, false), await at(4000, false)]).toEqual(['quarter', 'screen']);
  // The next finer one is scaled down, where there is one.
  expect([await at(2000, true), await at(1000, true), await at(9000, true)]).toEqual(['screen', 'quarter', 'screen']);
  expect(fetched).toEqual(['quarter', 'screen']);
});
