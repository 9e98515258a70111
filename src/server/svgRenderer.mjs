/**
 * Draws one SVG as PNG, in a process of its own that can be ended: the SVG comes on standard input, the PNG goes to standard
 * output. Argument: how long the longer side is made, px. It is handed over as bytes, so that nothing it names beside
 * itself can be reached.
 */
import { buffer } from 'node:stream/consumers';
import sharp from 'sharp';

const longest = Number(process.argv[2]);
const mostPixels = Number(process.argv[3]);
sharp.concurrency(1);
sharp.cache(false);

const bytes = await buffer(process.stdin);
const { width, height } = await sharp(bytes, { density: 96, limitInputPixels: false }).metadata();
const density = Math.min(2_400, Math.max(1, (96 * longest) / Math.max(width, height)));
const png = await sharp(bytes, { density, limitInputPixels: mostPixels })
  .resize({ width: longest, height: longest, fit: 'inside' })
  .png({ compressionLevel: 3 })
  .toBuffer();
await new Promise((done, failed) => process.stdout.write(png, (error) => (error ? failed(error) : done())));
