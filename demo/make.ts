import { nanoid } from 'nanoid';
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
import { pictures } from './pictures';
import { colourPicture } from './readPicture';

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
    picture: pictures.can,
    drawing: () => blank(160, 120),
    stage: 'prepare',
  },
  {
    title: 'Clay pot and radish, sowing calendar',
    name: 'clay-pot.jpg',
    picture: pictures.pot,
    drawing: () => blank(160, 120),
    stage: 'trace',
  },
  {
    title: 'Snail, corner of the catalogue',
    name: 'sketchbook-snail.jpg',
    picture: pictures.snail,
    drawing: () => blank(160, 120),
    stage: 'prepare',
  },
  {
    title: 'Pear branch, packet front',
    name: 'pear-pencil-scan.png',
    picture: pictures.pear,
    drawing: partlyTracedPear,
    stage: 'trace',
  },
  {
    title: 'Seed packet, the can in colour',
    name: 'watering-can.jpg',
    picture: pictures.can,
    drawing: canInLines,
    stage: 'colour',
    then: colouring,
  },
];

async function make(): Promise<void> {
  if (listDrawings().length > 0 || listDrawings(true).length > 0) return;
  for (const { title, name, picture, drawing, stage, then } of scenes) {
    const bytes = await picture();
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
    appendChanges(id, 0, [placing, ...(then?.(placed, await colourPicture(bytes), reference) ?? [])]);
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
