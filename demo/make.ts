import { nanoid } from 'nanoid';
import sharp from 'sharp';
import { applyChange, emptyDrawing, plainPage, type Drawing, type Reference } from '../src/core';
import type { Change } from '../src/core/change/change';
import type { ColourImage } from '../src/core/raster/colourImage';
import { placedReference, placeReference } from '../src/core/edits/references';
import { tagColours } from '../src/core/edits/sheets';
import { fromUnit } from '../src/core/drawing/unit';
import { closeDatabase } from '../src/server/database';
import { endDecoding } from '../src/server/decoding';
import { keepDrawing, listDrawings } from '../src/server/drawings';
import { appendChanges } from '../src/server/append';
import { takePicture } from '../src/server/pictures';
import { canInLines, colouring } from './colouredCan';
import { partlyTracedPear } from './drawings';
import { keptBytes } from './keptPicture';
import { canPhoto } from '../src/server/simulated/pictures/canPhoto';
import { potPhoto } from '../src/server/simulated/pictures/potPhoto';
import { pearScan } from '../src/server/simulated/pictures/pearScan';
import { snailPhoto } from '../src/server/simulated/pictures/snailPhoto';

/** Makes the demo's pictures and drawings in the data folder, unless there are drawings already. */

const blank = (width: number, height: number): Drawing =>
  emptyDrawing(
    plainPage({
      width: fromUnit(width, 'mm'),
      height: fromUnit(height, 'mm'),
      unit: 'mm',
      dpi: 300,
      ground: '#fffefb',
    }),
    { id: 'sheet-1', name: 'Sheet 1', tag: tagColours[0] },
  );

const scenes: {
  title: string;
  name: string;
  picture: () => Promise<Buffer>;
  drawing: () => Drawing;
  stage: string;
  /** What is done on it once its picture lies there. */
  then?: (d: Drawing, image: ColourImage, r: Reference) => Change[];
}[] = [
  {
    title: 'Watering can, back of the packet',
    name: 'watering-can.jpg',
    picture: canPhoto,
    drawing: () => blank(160, 120),
    stage: 'prepare',
  },
  {
    title: 'Clay pot and radish, sowing calendar',
    name: 'clay-pot.jpg',
    picture: potPhoto,
    drawing: () => blank(160, 120),
    stage: 'trace',
  },
  {
    title: 'Snail, corner of the catalogue',
    name: 'sketchbook-snail.jpg',
    picture: snailPhoto,
    drawing: () => blank(160, 120),
    stage: 'prepare',
  },
  {
    title: 'Pear branch, packet front',
    name: 'pear-pencil-scan.png',
    picture: pearScan,
    drawing: partlyTracedPear,
    stage: 'trace',
  },
  {
    title: 'Seed packet, the can in colour',
    name: 'watering-can.jpg',
    picture: canPhoto,
    drawing: canInLines,
    stage: 'colour',
    then: colouring,
  },
];

/** A picture's colours, as the program reads them. */
async function coloursOf(bytes: Buffer): Promise<ColourImage> {
  const { data, info } = await sharp(bytes).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, channels: 3, data: new Uint8Array(data) };
}

async function make(): Promise<void> {
  if (listDrawings().length > 0 || listDrawings(true).length > 0) return;
  for (const { title, name, picture, drawing, stage, then } of scenes) {
    const bytes = await keptBytes(name, picture);
    const taken = await takePicture(new Blob([new Uint8Array(bytes)]).stream(), bytes.length);
    const { id } = keepDrawing(title, drawing(), stage);
    const value = drawing();
    const reference = placedReference(value.page, {
      id: nanoid(10),
      name,
      picture: taken.hash,
      pixelWidth: taken.width,
      pixelHeight: taken.height,
      dpi: taken.dpi,
    });
    const placing = { id: nanoid(12), ...placeReference(value, reference) };
    const placed = applyChange(value, placing);
    appendChanges(id, 0, [placing, ...(then?.(placed, await coloursOf(bytes), reference) ?? [])]);
    process.stdout.write(`made “${title}”\n`);
  }
}

make()
  .finally(async () => {
    await endDecoding();
    closeDatabase();
  })
  .catch((error: unknown) => {
    console.error(error);
    process.exitCode = 1;
  });
