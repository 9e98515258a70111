import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import sharp from 'sharp';
import type { Drawing } from '@/core';
import { firstDelivery } from '@/core/deliver/delivery';
import { allLines } from '@/core/drawing/items';
import { svgFeatures } from '@/core/test/svg/features';
import { embedded } from '@/core/test/svg/embeddedPictures';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { GET as read } from './drawings/[id]/route';
import { GET as save, POST as saveAs } from './drawings/[id]/export/route';
import { POST as bringIn } from './drawings/import/route';
import { GET as list } from './drawings/route';

freshDataFolder();
const place = mkdtempSync(path.join(tmpdir(), 'yellow-quill-deliver-'));
afterAll(() => rmSync(place, { recursive: true, force: true }));

const svg = (content: string, root = 'width="200" height="150"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${root}>${content}</svg>`;
const imported = async (body: Uint8Array | string, query = '?title=Leaf') => {
  const bytes = typeof body === 'string' ? Buffer.from(body) : body;
  return call(bringIn, 'POST', {}, { body: bytes, query });
};
const drawingOf = async (id: string) => ((await call(read, 'GET', { id })).json as { drawing: Drawing }).drawing;
const idOf = async (text: string): Promise<string> => ((await imported(text)).json as { id: string }).id;
const saved = async (id: string, query: string) => {
  const { response } = await call(save, 'GET', { id }, { query });
  expect(response.status).toBe(200);
  return Buffer.from(await response.arrayBuffer());
};

describe('an SVG brought in', () => {
  test('becomes a drawing under its name; what was left out is told', async () => {
    const { status, json } = await imported(svg('<path d="M0 0L9 9" stroke="red"/><text>a</text>'));
    expect(status).toBe(201);
    const { id, dropped } = json as { id: string; dropped: { what: string }[] };
    expect(dropped.map((d) => d.what)).toEqual(['text']);
    expect(allLines(await drawingOf(id))).toHaveLength(1);
    const { json: all } = await call(list, 'GET');
    expect((all as { drawings: { title: string }[] }).drawings.some((d) => d.title === 'Leaf')).toBe(true);
  });

  test('in any encoding that it says, packed or not', async () => {
    const named = (encoding: string): string =>
      `<?xml version="1.0" encoding="${encoding}"?>${svg('<g id="Blätter"><path d="M0 0L9 9" stroke="red"/></g>')}`;
    const bodies = [
      Buffer.from(named('ISO-8859-1'), 'latin1'),
      Buffer.from(`\uFEFF${named('UTF-16')}`, 'utf16le'),
      Buffer.from(named('UTF-16LE'), 'utf16le'),
      Buffer.from(`\uFEFF${named('UTF-8')}`),
      gzipSync(named('utf-8')),
    ];
    for (const body of bodies) {
      const { json } = await imported(body);
      expect((await drawingOf((json as { id: string }).id)).sheets[0].name).toBe('Blätter');
    }
  });

  test('with its pictures, which are kept; a damaged one is left out, and said', async () => {
    const good = svg(`<image width="40" height="30" href="${embedded.png}"/><path d="M0 0L9 9" stroke="red"/>`);
    const id = await idOf(good);
    expect((await drawingOf(id)).sheets[0].items[0]).toMatchObject({ kind: 'picture', pixelWidth: 40 });
    const text = (await saved(id, '?format=svg')).toString();
    expect(text).toContain('data:image/png;base64,');
    const { json } = await imported(good.replace(embedded.png, embedded.png.slice(0, 1_500)));
    expect((json as { dropped: { what: string }[] }).dropped.map((d) => d.what)).toEqual(['damaged pictures']);
  });

  test.each([
    ['nothing', '', 400],
    ['no SVG', 'hello', 400],
    ['an SVG with nothing in it', svg('<defs><path d="M0 0L9 9"/></defs>'), 400],
    ['a packed one that is cut short', gzipSync(svg('<path d="M0 0L9 9"/>')).subarray(0, 30), 400],
    ['an encoding that is none', `<?xml version="1.0" encoding="x-none"?>${svg('')}`, 400],
  ])('%s is refused with words', async (_, body, status) => {
    const answer = await imported(body);
    expect(answer.status).toBe(status);
    expect((answer.json as { error: { message: string } }).error.message.length).toBeGreaterThan(20);
  });
});

describe('pictures of pixels', () => {
  test.each(['png', 'jpeg', 'webp', 'avif', 'tiff'])('%s: its size and dpi are those asked for', async (format) => {
    const id = await idOf(
      svg('<rect x="20" y="20" width="100" height="60" fill="#d1495b"/>', 'width="96" height="72"'),
    );
    const file = await saved(id, `?format=${format}&dpi=150&ground=page&quality=80`);
    const { width, height, density, format: is, hasProfile } = await sharp(file).metadata();
    expect([width, height]).toEqual([150, 113]);
    expect(is).toBe(format === 'avif' ? 'heif' : format);
    if (format !== 'avif' && format !== 'webp') expect(density).toBe(150);
    expect(hasProfile).toBe(true);
    const { data } = await sharp(file).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    const at = (60 * 150 + 100) * 3;
    [0xd1, 0x49, 0x5b].forEach((v, k) => expect(Math.abs(data[at + k] - v)).toBeLessThan(12));
  });

  test.each(['embedded PNG', 'picture turned, let through'])(
    '%s in a few greys is in those, and lets as much through',
    async (name) => {
      const id = await idOf(svgFeatures.find(([n]) => n === name)![1]);
      const as = async (shows: 'all' | 'squint') => {
        const body = { ...firstDelivery, format: 'png', shows, steps: 3 };
        const { response } = await call(saveAs, 'POST', { id }, { body });
        expect(response.status).toBe(200);
        return sharp(Buffer.from(await response.arrayBuffer()))
          .raw()
          .toBuffer({ resolveWithObject: true });
      };
      const [{ data: all }, { data: greys, info }] = await Promise.all([as('all'), as('squint')]);
      expect(info.channels).toBe(4);
      const seen = new Map<number, number>();
      let through = 0;
      for (let i = 0; i < greys.length; i += 4) {
        through += Math.abs(all[i + 3] - greys[i + 3]);
        expect(
          Math.max(greys[i], greys[i + 1], greys[i + 2]) - Math.min(greys[i], greys[i + 1], greys[i + 2]),
        ).toBeLessThan(4);
        if (greys[i + 3] > 250) seen.set(greys[i], (seen.get(greys[i]) ?? 0) + 1);
      }
      expect(through / (greys.length / 4)).toBeLessThan(2);
      // Where nothing is smoothed there are no more than those greys.
      const whole = [...seen.values()].reduce((a, b) => a + b, 0);
      const most = [...seen.values()].sort((a, b) => b - a).slice(0, 3);
      if (whole > 0) expect(most.reduce((a, b) => a + b, 0) / whole).toBeGreaterThan(0.7);
    },
  );

  test('quality makes a file smaller; a picture too large is refused', async () => {
    const id = await idOf(svgFeatures.find(([name]) => name === 'a landscape')![1]);
    const [low, high] = await Promise.all([20, 95].map((q) => saved(id, `?format=jpeg&dpi=200&quality=${q}`)));
    expect(low.length).toBeLessThan(0.6 * high.length);
    const { response } = await call(save, 'GET', { id }, { query: '?format=png&dpi=99999' });
    expect(response.status).toBe(400);
  });
});

describe('PDF, as poppler has it', () => {
  const inPoppler = (name: string, pdf: Buffer) => {
    const file = path.join(place, `${name}.pdf`);
    writeFileSync(file, pdf);
    const info = execFileSync('pdfinfo', [file]).toString();
    return { file, info };
  };
  async function rendered(file: string, width: number, height: number, blur: number): Promise<Buffer> {
    const out = execFileSync(
      'pdftocairo',
      ['-png', '-singlefile', '-scale-to-x', String(width), '-scale-to-y', String(height), file, '-'],
      { maxBuffer: 1e8 },
    );
    return flat(out, blur);
  }
  /** Pictures that are drawn larger than they are, each program smooths in its own way: those are looked at from further off. */
  const flat = (file: Buffer, blur: number): Promise<Buffer> => {
    const image = sharp(file).flatten({ background: '#fff' }).removeAlpha();
    return (blur > 0 ? image.blur(blur) : image).raw().toBuffer();
  };

  /** Which share of the pixels differs. */
  function unlike(a: Buffer, b: Buffer): number {
    expect(b.length).toBe(a.length);
    let changed = 0;
    for (let i = 0; i < a.length; i += 3) if ([0, 1, 2].some((k) => Math.abs(a[i + k] - b[i + k]) > 32)) changed++;
    return changed / (a.length / 3);
  }

  test('the page is as large as the drawing’s, its title and layers are named', async () => {
    const text = svg(
      '<g id="Lines"><path d="M10 10L180 120" stroke="red"/></g><g id="Fills"><rect width="9" height="9"/></g>',
      'width="148mm" height="105mm" viewBox="0 0 200 150"',
    );
    const pdf = await saved(await idOf(text), '?format=pdf');
    const { info } = inPoppler('page', pdf);
    expect(info).toMatch(/Title:\s+Leaf/);
    const [, w, h] = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(info)!;
    expect(Number(w)).toBeCloseTo((148 / 25.4) * 72, 1);
    expect(Number(h)).toBeCloseTo((105 / 25.4) * 72, 1);
    expect(pdf.toString('latin1')).toMatch(/\/OCProperties[\s\S]*\/OCGs/);
    expect(pdf.toString('latin1')).toContain('(Fills)');
  });

  test('cut to a page, its boxes say where; in a mirror all lies the other way round', async () => {
    const id = await idOf(
      svg(
        '<rect x="20" y="20" width="60" height="40" fill="#d1495b"/><path d="M0 100H200" stroke="#1f5e8c" stroke-width="6"/>',
      ),
    );
    const bleed = (3 * 96) / 25.4;
    const answer = await call(
      saveAs,
      'POST',
      { id },
      { body: { ...firstDelivery, format: 'pdf', mirror: true, bleed, marks: true } },
    );
    const { file } = inPoppler('cut', Buffer.from(await answer.response.arrayBuffer()));
    const boxes = execFileSync('pdfinfo', ['-box', file]).toString();
    const boxOf = (name: string): number[] =>
      new RegExp(`${name}:\\s+(.*)`).exec(boxes)![1].trim().split(/\s+/).map(Number);
    const [media, trim, bled] = ['MediaBox', 'TrimBox', 'BleedBox'].map(boxOf);
    const mm = 72 / 25.4;
    expect(trim[2] - trim[0]).toBeCloseTo(150, 1);
    expect(trim[3] - trim[1]).toBeCloseTo(112.5, 1);
    [0, 1].forEach((i) => expect(trim[i] - bled[i]).toBeCloseTo(3 * mm, 1));
    [0, 1].forEach((i) => expect(bled[i] - media[i]).toBeCloseTo(5 * mm, 1));
    const width = Math.round((media[2] / 72) * 96);
    const pixels = await rendered(file, width, Math.round((media[3] / 72) * 96), 0);
    const at = (x: number, y: number): number[] => {
      const i = (Math.round(y + (trim[0] / 72) * 96) * width + Math.round(x + (trim[0] / 72) * 96)) * 3;
      return [...pixels.subarray(i, i + 3)];
    };
    expect(at(150, 40)[1]).toBeLessThan(120);
    expect(at(50, 40)).toEqual([255, 255, 255]);
    // A file of the same drawing that is not cut has no such boxes.
    const plain = await saved(id, '?format=pdf');
    expect(plain.toString('latin1')).not.toContain('TrimBox');
  });

  const shown = [
    'basic shapes',
    'caps and joins',
    'dashes',
    'even-odd',
    'stroke below fill',
    'opacity of strokes and fills',
    'linear gradient',
    'oval radial gradient',
    'radial with a focus',
    'radial turned',
    'hard stops',
    'stops let through',
    'gradient strokes',
    'clip of a group',
    'clip even-odd',
    'mask with a hole',
    'group opacity',
    'nested opacity',
    'blends',
    'blend of a group',
    'embedded PNG',
    'picture turned, let through',
    'picture in a clip',
    'pattern',
    'a badge',
    'a landscape',
  ];
  test.each(['oval radial gradient', 'clip of a group', 'blends', 'picture in a clip'])(
    '%s in a mirror looks as it does in a picture of pixels',
    async (name) => {
      const id = await idOf(svgFeatures.find(([n]) => n === name)![1]);
      const as = async (format: 'pdf' | 'png'): Promise<Buffer> => {
        const body = { ...firstDelivery, format, mirror: true, dpi: 192 };
        return Buffer.from(await (await call(saveAs, 'POST', { id }, { body })).response.arrayBuffer());
      };
      const png = await as('png');
      const { width, height } = await sharp(png).metadata();
      const blur = name.includes('picture') ? 6 : 0;
      const { file } = inPoppler(`mirror-${name.replaceAll(' ', '-')}`, await as('pdf'));
      expect(unlike(await flat(png, blur), await rendered(file, width, height, blur))).toBeLessThan(0.01);
    },
  );

  test.each(shown)('%s looks as it does in a picture of pixels', async (name) => {
    const text = svgFeatures.find(([n]) => n === name)![1];
    const id = await idOf(text);
    const { file } = inPoppler(name.replaceAll(' ', '-'), await saved(id, '?format=pdf'));
    const png = await saved(id, '?format=png&dpi=192');
    const { width, height } = await sharp(png).metadata();
    const blur = /picture|PNG/.test(name) ? 6 : 0;
    const [data, pdf] = await Promise.all([flat(png, blur), rendered(file, width, height, blur)]);
    expect(unlike(data, pdf)).toBeLessThan(0.01);
  });
});
