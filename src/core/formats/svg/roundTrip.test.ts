import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import { drawingSchema, readSvg, writeSvg } from '../../index';
import { svgFeatures } from '../../test/svg/features';

/** A channel that differs by more than this has changed. */
const CHANGED = 24;

type Renderer = (svg: string) => Promise<Uint8Array>;

/** Two renderers that know nothing of ours; each has features that it does not know. Red, green and blue on white. */
const renderers: Renderer[] = [
  async (svg) => {
    const png = new Resvg(svg, { fitTo: { mode: 'width', value: 400 }, background: '#ffffff' }).render().asPng();
    return sharp(png).removeAlpha().raw().toBuffer();
  },
  (svg) =>
    sharp(Buffer.from(svg), { density: 288 })
      .flatten({ background: '#ffffff' })
      .resize(400)
      .removeAlpha()
      .raw()
      .toBuffer(),
];

/** Which share of the pixels has changed, as one of the renderers sees it that sees least. */
async function changed(before: string, after: string): Promise<number> {
  let least = 1;
  for (const render of renderers) {
    if (least < 0.005) break;
    const [a, b] = await Promise.all([render(before), render(after)]);
    if (a.length !== b.length) continue;
    let count = 0;
    for (let i = 0; i < a.length; i += 3) if ([0, 1, 2].some((k) => Math.abs(a[i + k] - b[i + k]) > CHANGED)) count++;
    least = Math.min(least, count / (a.length / 3));
  }
  return least;
}

/** What no renderer at hand knows: it is looked at by its places. */
const unknownToBoth = ['css transform', 'dashes by path length', 'constant width', 'variables'];

test.each(svgFeatures.filter(([name]) => !unknownToBoth.includes(name)))(
  '%s goes in and out and looks the same',
  async (_, text) => {
    const { drawing, dropped } = readSvg(text);
    expect(drawingSchema.safeParse(drawing).error).toBeUndefined();
    const again = writeSvg(drawing);
    const share = await changed(text, again);
    expect({ changed: share < 0.005 ? 0 : share, dropped }).toEqual({ changed: 0, dropped: expect.any(Array) });
    // And what we wrote ourselves comes back as it was.
    expect(await changed(again, writeSvg(readSvg(again).drawing))).toBeLessThan(0.005);
  },
);
