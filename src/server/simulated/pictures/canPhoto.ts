import sharp from 'sharp';
import { seeded } from '@/core/seeded';
import { canPage, canPaths } from '../curves/can';
import { gaussian, octaves } from './noise';

/** A colour photo of a tin watering can on a sill: round shading, soft shadow, blurred garden, sensor noise. JPEG. */
export async function canPhoto(): Promise<Buffer> {
  const { width, height } = canPage;
  const scene = await sharp(Buffer.from(sceneSvg())).removeAlpha().raw().toBuffer();
  const scratches = octaves(61, 3);
  const random = seeded(8);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = (y * width + x) * 3;
      const vignette = lightAt(x, y);
      const texture = 5 * scratches(x / 90, y / 14);
      const noise = 3.4 * gaussian(random);
      for (let c = 0; c < 3; c++)
        scene[i + c] = Math.min(255, Math.max(0, (scene[i + c] + texture) * vignette + noise));
    }
  }
  return sharp(scene, { raw: { width, height, channels: 3 } })
    .blur(0.8)
    .jpeg({ quality: 86 })
    .toBuffer();
}

/** How much of the light reaches a place of the picture: least in its corners. */
const lightAt = (x: number, y: number): number =>
  1 - 0.22 * (((x - canPage.width / 2) / canPage.width) ** 2 + ((y - canPage.height / 2) / canPage.height) ** 2) * 2;

/** What the photo shows, before grain, noise, a soft lens and JPEG: red, green and blue of each pixel, row by row. */
export async function canTruth(): Promise<Buffer> {
  const scene = await sharp(Buffer.from(sceneSvg())).removeAlpha().raw().toBuffer();
  return scene.map((v, i) =>
    Math.round(v * lightAt(Math.floor(i / 3) % canPage.width, Math.floor(i / 3 / canPage.width))),
  ) as Buffer;
}

function sceneSvg(): string {
  const random = seeded(44);
  const blots = Array.from({ length: 70 }, () => {
    const [x, y, r] = [random() * 1600, random() * 760, 40 + random() * 120];
    const colour = ['#5d7a3a', '#7f9a52', '#3f5a30', '#a7b36a', '#c9c58a', '#8a9f62'][Math.floor(random() * 6)];
    return `<circle cx="${x.toFixed(0)}" cy="${y.toFixed(0)}" r="${r.toFixed(0)}" fill="${colour}" opacity="0.55"/>`;
  }).join('');
  const tin = (id: string, x1: number, x2: number, stops: string) =>
    `<linearGradient id="${id}" gradientUnits="userSpaceOnUse" x1="${x1}" x2="${x2}" y1="0" y2="60">${stops}</linearGradient>`;
  const stops =
    '<stop offset="0" stop-color="#4c6f73"/><stop offset=".14" stop-color="#6f9599"/><stop offset=".3" stop-color="#c9dedd"/><stop offset=".42" stop-color="#9dbfc0"/><stop offset=".72" stop-color="#5b8286"/><stop offset=".92" stop-color="#3a575b"/><stop offset="1" stop-color="#52777a"/>';
  return `<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="1200" viewBox="0 0 1600 1200"><defs>
${tin('body', 450, 970, stops)}${tin('spout', 1010, 1210, '<stop offset="0" stop-color="#3f6064"/><stop offset=".4" stop-color="#a8c6c6"/><stop offset="1" stop-color="#446468"/>')}${tin('handle', 280, 470, '<stop offset="0" stop-color="#a9c5c5"/><stop offset=".5" stop-color="#5d8387"/><stop offset="1" stop-color="#3d5c60"/>')}
<radialGradient id="hole" gradientUnits="userSpaceOnUse" cx="690" cy="462" r="240"><stop offset="0" stop-color="#1f3235"/><stop offset="1" stop-color="#456367"/></radialGradient>
<linearGradient id="sill" x1="0" x2="0" y1="0" y2="1"><stop offset="0" stop-color="#d8c9ae"/><stop offset="1" stop-color="#b39f7e"/></linearGradient>
<filter id="far" x="-20%" y="-20%" width="140%" height="140%"><feGaussianBlur stdDeviation="34"/></filter><filter id="near" x="-30%" y="-60%" width="160%" height="220%"><feGaussianBlur stdDeviation="22"/></filter><filter id="soft" x="-20%" y="-20%" width="140%" height="140%"><feGaussianBlur stdDeviation="9"/></filter>
<clipPath id="in"><path d="${canPaths.body}Z"/></clipPath><clipPath id="mouth"><path d="${canPaths.rim}Z"/></clipPath></defs>
<rect width="1600" height="1200" fill="#93a66a"/><g filter="url(#far)">${blots}<rect y="640" width="1600" height="120" fill="#6d7d4b"/></g>
<rect y="770" width="1600" height="430" fill="url(#sill)"/><rect y="770" width="1600" height="9" fill="#efe4cd" opacity=".8"/>
<ellipse cx="800" cy="990" rx="430" ry="48" fill="#3c2f1c" opacity=".6" filter="url(#near)"/><ellipse cx="720" cy="980" rx="270" ry="22" fill="#2a2013" opacity=".6" filter="url(#soft)"/>
<path d="${canPaths.handle}Z" fill="url(#handle)"/><path d="${canPaths.spout}Z" fill="url(#spout)"/><path d="${canPaths.rose}Z" fill="#5d8084"/>
<path d="${canPaths.body}Z" fill="url(#body)"/><g clip-path="url(#in)"><ellipse cx="710" cy="1000" rx="300" ry="60" fill="#20383b" opacity=".5" filter="url(#soft)"/><path d="M452 880 C560 930 860 930 968 880" stroke="#2f4d50" stroke-width="9" fill="none" opacity=".55"/><path d="M452 872 C560 922 860 922 968 872" stroke="#d5e6e5" stroke-width="4" fill="none" opacity=".6"/><path d="M462 500 C480 530 590 542 710 542 C830 542 940 530 958 500" fill="none" stroke="#2f4a4d" stroke-width="22" opacity=".55" filter="url(#soft)"/><ellipse cx="590" cy="720" rx="16" ry="190" fill="#f3fbfa" opacity=".55" filter="url(#soft)"/></g>
<path d="${canPaths.rim}Z" fill="url(#hole)"/><path d="${canPaths.rim}Z" fill="none" stroke="#b7d0d0" stroke-width="25" clip-path="url(#mouth)"/>
<path d="${canPaths.bail}Z" fill="url(#body)"/></svg>`;
}
