import 'fake-indexeddb/auto';
import { packed, unpacked } from '@/core/formats/packed';
import { firstDrawing } from '../test/madeChanges';
import { bringAsidesBack, rememberAside } from './asides';
import { asidesOf } from './pending';

/** What the server says of each drawing, and what it was given as a whole. */
let there: Map<string, 200 | 404 | 410>;
let given: Uint8Array[];

beforeEach(() => {
  there = new Map();
  given = [];
  globalThis.fetch = ((path: string, init?: RequestInit) => {
    const [, id, what] = /^\/api\/drawings\/([^/?]+)\/(\w+)/.exec(path)!;
    if (what === 'packed')
      return Promise.resolve(
        new Response(packed(firstDrawing) as Uint8Array<ArrayBuffer>, {
          headers: { 'x-drawing': encodeURIComponent(JSON.stringify({ id })) },
        }),
      );
    if (what === 'aside') {
      given.push(init!.body as Uint8Array);
      there.set('again', 200);
      return Promise.resolve(Response.json({ id: 'again', title: 'Again' }, { status: 201 }));
    }
    const status = there.get(id);
    if (!status) return Promise.reject(new TypeError('no line'));
    return Promise.resolve(
      status === 200 ? Response.json({}) : Response.json({ error: { code: 'x', message: 'x' } }, { status }),
    );
  }) as typeof fetch;
});

test('what was put aside and is lost is given again, once; what is there or was deleted is not', async () => {
  for (const aside of ['kept', 'lost', 'deleted']) await rememberAside('d', aside);
  there = new Map([
    ['kept', 200],
    ['lost', 404],
    ['deleted', 410],
  ]);
  expect(await bringAsidesBack('d')).toEqual([{ was: 'lost', id: 'again', title: 'Again' }]);
  expect(given.map((bytes) => unpacked(bytes))).toEqual([firstDrawing]);
  expect((await asidesOf('d')).map((a) => a.aside).sort()).toEqual(['again', 'kept']);
  expect(await bringAsidesBack('d')).toEqual([]);
});

test('while the server cannot be reached the copies stay', async () => {
  await rememberAside('e', 'unreached');
  await expect(bringAsidesBack('e')).rejects.toThrow('reached');
  expect(await asidesOf('e')).toHaveLength(1);
});
