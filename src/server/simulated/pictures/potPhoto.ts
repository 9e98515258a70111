import sharp from 'sharp';
import { seeded } from '@/core/seeded';
import { potPage, potPaths } from '../curves/pot';
import { gaussian, octaves } from './noise';

/**
 * A colour photo of a clay pot before a wall as light as itself, a radish half behind it, a leaf and a shell: soft shadows, grain
 * on wall and clay, sensor noise. What tells things apart is more often their hue than their lightness. JPEG.
 */
export async function potPhoto(): Promise<Buffer> {
  const { width, height } = potPage;
  const scene = await sharp(Buffer.from(sceneSvg())).removeAlpha().raw().toBuffer();
  const clay = await sharp(Buffer.from(maskSvg())).removeAlpha().raw().toBuffer();
  const [plaster, grit] = [octaves(23, 3), octaves(71, 2)];
  const random = seeded(18);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = (y * width + x) * 3;
      const isClay = clay[i] / 255;
      const grain = 1 + (1 - isClay) * 0.045 * plaster(x / 26, y / 26) + isClay * 0.06 * grit(x / 9, y / 9);
      for (let c = 0; c < 3; c++)
        scene[i + c] = Math.min(255, Math.max(0, scene[i + c] * grain + 3.6 * gaussian(random)));
    }
  }
  return sharp(scene, { raw: { width, height, channels: 3 } })
    .blur(0.9)
    .jpeg({ quality: 88, chromaSubsampling: '4:4:4' })
    .toBuffer();
}

const svg = (body: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="1200" viewBox="0 0 1600 1200">${body}</svg>`;

/** Where clay is, in white. */
const maskSvg = (): string =>
  svg(
    `<rect width="1600" height="1200" fill="#000"/><path d="${potPaths.pot}Z" fill="#fff"/><path d="${potPaths.collar}Z" fill="#fff"/>`,
  );

function sceneSvg(): string {
  const soft = (id: string, by: number) =>
    `<filter id="${id}" x="-40%" y="-60%" width="180%" height="220%"><feGaussianBlur stdDeviation="${by}"/></filter>`;
  const sideways = (id: string, x1: number, x2: number, stops: readonly (readonly [number, string])[]) =>
    `<linearGradient id="${id}" gradientUnits="userSpaceOnUse" x1="${x1}" x2="${x2}" y1="0" y2="0">${stops
      .map(([at, colour]) => `<stop offset="${at}" stop-color="${colour}"/>`)
      .join('')}</linearGradient>`;
  return svg(`<defs>${soft('far', 26)}${soft('near', 11)}
${sideways('wall', 0, 1600, [
    [0, '#8f9a90'],
    [1, '#7d887f'],
  ])}
${sideways('clay', 420, 980, [
    [0, '#b97f66'],
    [0.35, '#c28a70'],
    [1, '#a06a52'],
  ])}
${sideways('collar', 390, 1010, [
    [0, '#c58d74'],
    [0.4, '#cc967c'],
    [1, '#ab745b'],
  ])}
${sideways('leaf', 1010, 1420, [
    [0, '#6f9b52'],
    [1, '#86a860'],
  ])}
<radialGradient id="radish" gradientUnits="userSpaceOnUse" cx="1010" cy="700" r="360"><stop offset="0" stop-color="#cf6f88"/><stop offset="1" stop-color="#a34f6a"/></radialGradient>
<radialGradient id="shell" gradientUnits="userSpaceOnUse" cx="300" cy="920" r="280"><stop offset="0" stop-color="#a9a7c4"/><stop offset="1" stop-color="#8381a6"/></radialGradient></defs>
<rect width="1600" height="1200" fill="url(#wall)"/><rect y="900" width="1600" height="300" fill="#a89c84"/>
<ellipse cx="760" cy="1062" rx="420" ry="52" fill="#3a3226" opacity=".55" filter="url(#far)"/><ellipse cx="1090" cy="1040" rx="230" ry="40" fill="#3a3226" opacity=".4" filter="url(#far)"/><ellipse cx="370" cy="1104" rx="190" ry="26" fill="#332c20" opacity=".5" filter="url(#near)"/>
<path d="${potPaths.radish}Z" fill="url(#radish)"/><path d="${potPaths.leaf}Z" fill="url(#leaf)"/><path d="M1020 556 C1120 460 1260 340 1400 250" fill="none" stroke="#9dbb78" stroke-width="6" opacity=".7"/>
<path d="${potPaths.pot}Z" fill="url(#clay)"/><path d="M402 548 C560 588 840 588 998 548 L990 600 C840 634 560 634 414 600Z" fill="#4a2c20" opacity=".28" filter="url(#near)" clip-path="url(#in)"/><clipPath id="in"><path d="${potPaths.pot}Z"/></clipPath>
<path d="${potPaths.collar}Z" fill="url(#collar)"/><path d="${potPaths.shell}Z" fill="url(#shell)"/>`);
}
