import { existsSync, readdirSync, writeFileSync } from 'node:fs';
import { eq } from 'drizzle-orm';
import { firstStyle, plainPage, type Reference } from '@/core';
import { cornerAt } from '@/core/drawing/run';
import { addLine } from '@/core/edits/lines';
import { placeReference } from '@/core/edits/references';
import { wanderingDrawing } from '@/core/test/drawings';
import { GET as thumbnail } from '@/app/api/drawings/[id]/thumbnail/route';
import { database } from './database';
import { binDrawing, createDrawing, deleteForGood } from './drawings';
import { appendChanges } from './append';
import { stateOf } from './journal';
import { backupNow } from './keeping/backups';
import { restore } from './keeping/keeper';
import { originalFile } from './originals';
import { dataFolder, folder } from './place';
import { pictures } from './tables';
import { call, freshDataFolder } from './test/dataFolder';
import { freeUnnamedPictures, PATIENCE_MS } from './unnamed';
import { keepVersion } from './versions';

/** What is made of drawings is kept for as long as it is asked for, pictures for as long as something names them. */

freshDataFolder();
const page = plainPage({ width: 200, height: 100, unit: 'px', dpi: 96, ground: null });

describe('pictures on cards', () => {
  const cards = (id: string) =>
    readdirSync(folder('derived'))
      .filter((f) => f.startsWith(`${id}-`))
      .sort();
  const ask = (id: string, headers = {}) => call(thumbnail as never, 'GET', { id }, { headers });

  test('are made once for each revision; those of old ones go, but for versions', async () => {
    const { id } = createDrawing('Cards', page);
    const lay = (revision: number) => {
      const { drawing } = stateOf(id);
      const line = { ...wanderingDrawing(1, 2, 1).sheets[0].items[0], id: `n${revision}` };
      appendChanges(id, revision, [{ id: `c${revision}`, ...addLine(drawing, drawing.sheets[0].id, line as never) }]);
    };
    const first = Buffer.from(await (await ask(id)).response.arrayBuffer());
    expect(cards(id)).toEqual([`${id}-0-first-card.webp`]);
    // The second time it is what is kept: whatever has become of it.
    writeFileSync(`${folder('derived')}/${id}-0-first-card.webp`, first.subarray(0, 20));
    expect(Buffer.from(await (await ask(id)).response.arrayBuffer())).toHaveLength(20);
    keepVersion(id, 'Empty');
    lay(0);
    await ask(id);
    lay(1);
    const { response } = await ask(id);
    expect(cards(id)).toEqual([`${id}-0-first-card.webp`, expect.stringMatching(/-2-[0-9a-f]{16}-card\.webp$/)]);
    expect((await ask(id, { 'if-none-match': response.headers.get('etag')! })).status).toBe(304);
  });

  test('are made anew where a backup was put back, and the drawing went on another way', async () => {
    const { id } = createDrawing('Cards', page);
    const { name } = backupNow(dataFolder(), 'asked');
    const lay = (change: string, y: number) => {
      const { drawing } = stateOf(id);
      const nodes = [cornerAt({ x: 20, y }), cornerAt({ x: 180, y })];
      const line = { id: 'n', runs: [{ closed: false, nodes }], style: { ...firstStyle, width: 20 } };
      appendChanges(id, 0, [{ id: change, ...addLine(drawing, drawing.sheets[0].id, line) }]);
    };
    lay('one', 25);
    const { response } = await ask(id);
    await restore(name);
    // The change may even bear the same name.
    lay('one', 75);
    const again = await ask(id, { 'if-none-match': response.headers.get('etag')! });
    expect(again.status).toBe(200);
    const [before, after] = await Promise.all([response, again.response].map((r) => r.arrayBuffer()));
    expect(Buffer.from(after).equals(Buffer.from(before))).toBe(false);
  });
});

describe('pictures that nothing names', () => {
  const hash = (digit: string): string => digit.repeat(64);
  function bringIn(digit: string): void {
    writeFileSync(originalFile(hash(digit)), 'bytes');
    writeFileSync(`${folder('derived')}/${hash(digit)}-screen.img`, 'small');
    database()
      .insert(pictures)
      .values({ hash: hash(digit), mime: 'image/png', bytes: 5, width: 4, height: 4, dpi: null, at: 1_000 })
      .run();
  }
  const reference = (digit: string): Reference => ({
    id: `r${digit}`,
    name: 'Picture',
    picture: hash(digit),
    pixelWidth: 4,
    pixelHeight: 4,
    dpi: null,
    corrections: [],
    at: { x: 0, y: 0 },
    width: 4,
    height: 4,
    turn: 0,
    flipX: false,
    flipY: false,
    beside: false,
    dim: 0,
    blend: 'normal',
    tint: null,
    visible: true,
    locked: true,
    target: 'ink',
  });
  const place = (id: string, digit: string): void => {
    const { drawing, revision } = stateOf(id);
    appendChanges(id, revision, [{ id: `p${digit}`, ...placeReference(drawing, reference(digit)) }]);
  };

  test('are freed when they have waited; what can be undone, or lies in the bin, keeps its own', async () => {
    for (const digit of ['1', '2', '3']) bringIn(digit);
    const kept = createDrawing('Kept', page).id;
    place(kept, '1');
    const gone = createDrawing('Gone', page).id;
    place(gone, '2');
    binDrawing(gone, true);
    expect(await freeUnnamedPictures(1_000 + PATIENCE_MS)).toEqual([]);
    expect(await freeUnnamedPictures(1_001 + PATIENCE_MS)).toEqual([hash('3')]);
    expect(existsSync(originalFile(hash('3')))).toBe(false);
    expect(readdirSync(folder('derived')).some((f) => f.startsWith(hash('3')))).toBe(false);
    deleteForGood(gone);
    expect(await freeUnnamedPictures(1_001 + PATIENCE_MS)).toEqual([hash('2')]);
    expect(existsSync(originalFile(hash('1')))).toBe(true);
    expect(
      database()
        .select()
        .from(pictures)
        .where(eq(pictures.hash, hash('1')))
        .all(),
    ).toHaveLength(1);
  });
});
