import { emptyDrawing, type Drawing, type Reference } from '@/core';
import { placedReference } from '@/core/edits/references';
import { firstCorrections } from '@/core/raster/correction';
import { testPage } from '@/core/test/drawings';
import { askPicturesAhead, placeFor, plainPicture, sizes } from './plainPictures';

const hash = (of: string): string => of.repeat(64);
const reference = (of: string, more: Partial<Reference> = {}): Reference => ({
  ...placedReference(testPage, { id: of, name: of, picture: hash(of), pixelWidth: 900, pixelHeight: 600, dpi: null }),
  width: 900,
  height: 600,
  ...more,
});
const withReferences = (...references: Reference[]): Drawing => ({
  ...emptyDrawing(testPage, { id: 's', name: 'Lines', tag: '#aa3322' }),
  references,
});

let asked: string[];
let closed: string[];
let isAnswering: boolean;
beforeEach(() => {
  [asked, closed, isAnswering] = [[], [], true];
  globalThis.fetch = (async (url: string) => {
    asked.push(url.replace('/api/pictures/', ''));
    return { ok: isAnswering, status: 500, blob: async () => url };
  }) as never;
  globalThis.createImageBitmap = (async (url: string) => ({ url, close: () => closed.push(url) })) as never;
});

test('the coarsest size that is fine enough is taken, or the finest there is', () => {
  expect([1, 1024, 1025, 4096, 9000].map((longest) => sizes[placeFor(longest)].size)).toEqual([
    'quarter',
    'quarter',
    'half',
    'screen',
    'screen',
  ]);
});

test('what is about to be seen is asked for once, as large as it will be; corrected and hidden pictures are not', async () => {
  const corrected = reference('c', { corrections: [firstCorrections.grey] });
  const off = reference('d', { corrections: [{ ...firstCorrections.grey, on: false }] });
  askPicturesAhead(withReferences(reference('a'), reference('b', { visible: false }), corrected, off), 1.5);
  expect(asked).toEqual([`${hash('a')}?size=half`, `${hash('d')}?size=half`]);
  const [one, other] = await Promise.all([plainPicture(hash('a'), 'half'), plainPicture(hash('a'), 'screen')]);
  expect(one).not.toBe(other);
  expect(asked).toHaveLength(3);
  // It was handed over: whoever asks again has it fetched.
  await plainPicture(hash('a'), 'half');
  expect(asked).toHaveLength(4);
  await plainPicture(hash('d'), 'half');
});

test('what nobody took is let go of; what could not be had is told to whoever takes it, and fetched by the next', async () => {
  askPicturesAhead(withReferences(reference('a')), 1);
  askPicturesAhead(withReferences(), 1);
  await new Promise((r) => setTimeout(r, 0));
  expect(closed).toEqual([`/api/pictures/${hash('a')}?size=quarter`]);
  isAnswering = false;
  askPicturesAhead(withReferences(reference('a')), 1);
  await new Promise((r) => setTimeout(r, 0));
  isAnswering = true;
  await expect(plainPicture(hash('a'), 'quarter')).rejects.toThrow('500');
  await expect(plainPicture(hash('a'), 'quarter')).resolves.toBeDefined();
});
