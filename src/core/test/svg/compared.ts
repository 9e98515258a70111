import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';

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
export async function changed(before: string, after: string): Promise<number> {
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
