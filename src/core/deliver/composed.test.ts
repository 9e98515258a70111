import sharp from 'sharp';
import { readSvg, type Drawing, type Line } from '../index';
import { allLines, mapLines } from '../drawing/items';
import { mappedLine } from '../edits/transform';
import { scalingAbout } from '../geometry/matrix';
import { writeComposition } from '../formats/svg/writeSvg';
import { changed } from '../test/svg/compared';
import { svgFeatures } from '../test/svg/features';
import { composed } from './composed';
import { firstDelivery, plainSvgLook, type Delivery, type SvgLook } from './delivery';

const MM = 96 / 25.4;
const featured = (name: string): Drawing => readSvg(svgFeatures.find(([n]) => n === name)![1]).drawing;
const drawn = (content: string): Drawing =>
  readSvg(`<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100">${content}</svg>`).drawing;

const written = (d: Drawing, some: Partial<Delivery> = {}, look: Partial<SvgLook> = {}): string => {
  const wanted = { ...firstDelivery, ...some, svg: { ...plainSvgLook, ...look } };
  return writeComposition(composed(d, wanted), wanted.svg, { title: 'Leaf' });
};

/** A picture of it, one pixel a page unit: the colour at a place, #rrggbb; white where nothing is. */
async function pictured(svg: string): Promise<(x: number, y: number) => string> {
  const { data, info } = await sharp(Buffer.from(svg), { density: 72 })
    .flatten({ background: '#ffffff' })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return (x, y) => {
    const at = (Math.floor(y) * info.width + Math.floor(x)) * 3;
    return `#${data.subarray(at, at + 3).toString('hex')}`;
  };
}

const many = ['a badge', 'a landscape', 'clip of a group', 'oval radial gradient', 'stroke below fill', 'blends'];

describe('what is shown', () => {
  const d = drawn(
    '<g id="Fills"><rect x="20" y="20" width="60" height="60" fill="#d1495b"/></g>' +
      '<g id="Lines"><path d="M100 50H180" stroke="#1f5e8c" stroke-width="10"/><rect x="120" y="70" width="40" height="20" fill="#f0c808" stroke="#1f5e8c" stroke-width="4"/></g>',
  );

  test('just lines, just colours, or a few greys', async () => {
    const lines = await pictured(written(d, { shows: 'lines' }));
    expect([lines(50, 50), lines(140, 50), lines(140, 80), lines(140, 71)]).toEqual([
      '#ffffff',
      '#1f5e8c',
      '#ffffff',
      '#1f5e8c',
    ]);
    const colours = await pictured(written(d, { shows: 'colours' }));
    expect([colours(50, 50), colours(140, 46), colours(140, 80)]).toEqual(['#d1495b', '#ffffff', '#f0c808']);
    expect(written(d, { shows: 'colours' })).not.toContain('stroke="#1f5e8c" stroke-width="10"');
    const greys = await pictured(written(d, { shows: 'squint', steps: 2 }));
    const [dark, light] = [greys(140, 50), greys(140, 80)];
    for (const grey of [dark, light]) expect(grey).toMatch(/^#(..)\1\1$/);
    expect(dark < light).toBe(true);
    expect(greys(50, 50)).toBe(light);
  });

  test('what was chosen alone, in its groups; the file is as large as its stroke', () => {
    const [, , box] = allLines(d);
    const svg = written(d, { scope: 'chosen', chosen: [box.id] });
    expect(svg.match(/<path /g)).toHaveLength(1);
    expect(svg).toContain('viewBox="118 68 44 24"');
  });

  test.each(many)('%s in a mirror is its picture turned over', async (name) => {
    const whole = featured(name);
    const image = (svg: string) => sharp(Buffer.from(svg), { density: 192 }).flatten({ background: '#ffffff' });
    const turned = await image(written(whole)).flop().removeAlpha().raw().toBuffer();
    const mirrored = await image(written(whole, { mirror: true }))
      .removeAlpha()
      .raw()
      .toBuffer();
    const other = turned.reduce((n, v, i) => n + (Math.abs(v - mirrored[i]) > 24 ? 1 : 0), 0);
    expect(other / turned.length).toBeLessThan(0.005);
    // And it comes back alive.
    const back = readSvg(written(whole, { mirror: true })).drawing;
    expect(await changed(written(whole), written(back, { mirror: true }))).toBeLessThan(0.005);
  });
});

describe('for print', () => {
  test('colour reaches into the bleed and no further; marks show where it is cut', async () => {
    const page = drawn('<rect width="200" height="100" fill="#2a9d8f"/>');
    const wide = (line: Line): Line => mappedLine(line, scalingAbout({ x: 100, y: 50 }, 2, 2), false);
    const d = { ...page, sheets: page.sheets.map((s) => ({ ...s, items: mapLines(s.items, wide) })) };
    const bleed = 3 * MM;
    const svg = written(d, { bleed, marks: true });
    const { box, cut } = composed(d, { ...firstDelivery, bleed, marks: true });
    expect(cut).toEqual({
      trim: { minX: 0, minY: 0, maxX: 200, maxY: 100 },
      bleed: { minX: -bleed, minY: -bleed, maxX: 200 + bleed, maxY: 100 + bleed },
    });
    const at = await pictured(svg);
    const seen = (x: number, y: number): string => at(x - box.minX, y - box.minY);
    expect(seen(-bleed + 1.5, 50)).toBe('#2a9d8f');
    expect(seen(-bleed - 1.5, 50)).toBe('#ffffff');
    // A third of a pixel of black: no white, and in line with the edge.
    expect(seen(0, -bleed - 2 * MM) < '#e0e0e0' || seen(-0.5, -bleed - 2 * MM) < '#e0e0e0').toBe(true);
    expect(seen(20, -bleed - 2 * MM)).toBe('#ffffff');
  });

  test('on paper it is as large as it fits, as often as it is wanted, with its frame', async () => {
    const d = drawn('<rect width="200" height="100" fill="none" stroke="#000" stroke-width="8"/>');
    const paper = { width: 210 * MM, height: 297 * MM, margin: 10 * MM, title: false, border: true, count: 1 };
    const one = composed(d, { ...firstDelivery, paper });
    // It lies level, so the paper does.
    expect([one.box.maxX / MM, one.box.maxY / MM]).toEqual([expect.closeTo(297, 6), expect.closeTo(210, 6)]);
    const four = composed(d, { ...firstDelivery, paper: { ...paper, count: 4 } });
    expect([one.art.length, four.art.length]).toEqual([1, 4]);
    expect(four.over).toHaveLength(4);
    const at = await pictured(writeComposition(four, plainSvgLook));
    const [w, h] = [four.box.maxX, four.box.maxY];
    let dark = 0;
    for (let x = 0; x < w; x += 0.5) if (at(x, h * 0.3) < '#808080') dark++;
    // Across two of them: a frame and two thick sides each.
    expect(dark).toBeGreaterThan(20);
    expect(at(w / 2, h / 2)).toBe('#ffffff');
  });
});

describe('as SVG', () => {
  test.each(many)('%s looks the same with outlines in place of strokes, and has no stroke', async (name) => {
    const d = featured(name);
    const svg = written(d, {}, { strokes: 'outlines' });
    expect(await changed(written(d), svg)).toBeLessThan(0.005);
    expect(svg).not.toMatch(/stroke-width|data-stroke|stroke="[^n]/);
  });

  test.each(['classes', 'properties'] as const)('swatches as %s look the same', async (colours) => {
    const d = drawn(
      '<style>svg{--leaf:#2a9d8f;--rose:#d1495b}</style><rect x="9" y="9" width="80" height="80" style="fill:var(--leaf);stroke:var(--rose);stroke-width:9;mix-blend-mode:multiply"/>',
    );
    expect(d.palette).toHaveLength(2);
    const svg = written(d, {}, { colours });
    expect(await changed(written(d), svg)).toBeLessThan(0.005);
    // Each attribute stands once: a stricter parser than ours says so by drawing it.
    await pictured(svg);
    if (colours === 'properties')
      expect(
        readSvg(svg)
          .drawing.palette?.map((s) => s.colour)
          .sort(),
      ).toEqual(['#2a9d8f', '#d1495b']);
    else expect(svg).toContain('class="fill-leaf stroke-rose"');
  });

  test('bare of what only brings it back, nothing looks otherwise', async () => {
    const d = featured('a badge');
    const svg = written(d, {}, { metadata: false });
    expect(svg).not.toMatch(/<title|data-/);
    expect(await changed(written(d), svg)).toBeLessThan(0.005);
    expect(written(d)).toContain('<title>Leaf</title>');
  });

  test('fewer digits are fewer bytes; pictures can be left out of it, and only of it', () => {
    const d = featured('picture in a clip');
    expect(written(d, {}, { pictures: false })).not.toContain('<image');
    const bare = { ...firstDelivery, svg: { ...plainSvgLook, pictures: false, flats: 'apart' as const } };
    expect(composed(d, { ...bare, format: 'png' })).toEqual(composed(d, { ...firstDelivery, format: 'png' }));
    expect(written(d, {}, { decimals: 0 }).length).toBeLessThan(written(d, {}, { decimals: 6 }).length);
  });
});
