import { applyChange, type Drawing, type Reference } from '../src/core';
import { labDistance } from '../src/core/colour/oklab';
import { allFlats, boundsOf, laid } from '../src/core/edits/flats';
import { placedArea } from '../src/core/edits/placedArea';
import { takeColours, type Beneath } from '../src/core/edits/takeColours';
import { toneDistances } from '../src/core/edits/toneDistance';
import { placedReference } from '../src/core/edits/references';
import { arrangementOf } from '../src/core/flats/arrangement';
import type { ColourImage } from '../src/core/raster/colourImage';
import { canTruth } from '../src/server/simulated/pictures/canPhoto';
import { beneathIn, canInLines } from './colouredCan';
import { pictures } from './pictures';
import { colourPicture } from './readPicture';

let n = 0;
const freshId = (): string => `n${n++}`;
const start = canInLines();
const r: Reference = placedReference(start.page, {
  id: 'r',
  name: 'can.jpg',
  picture: 'a'.repeat(64),
  pixelWidth: 1600,
  pixelHeight: 1200,
  dpi: 72,
});

test('flats take the colours that the photo was made from; tone distances are the true ones', async () => {
  const photo = await colourPicture(await pictures.can());
  const scene: ColourImage = { ...photo, data: new Uint8Array(await canTruth()) };
  const areas = arrangementOf(
    boundsOf(start).map((b) => b.run),
    { gap: 4 },
  ).areas();
  const poured: Drawing = applyChange(start, {
    id: 'p',
    ...laid(start, areas.map(placedArea), { fill: '#808080', gap: 4, freshId }, 'Pour').edit,
  });
  const [seen, truth] = [photo, scene].map((image) => beneathIn(poured, image, r));
  expect(seen).toHaveLength(areas.length);
  const true_ = new Map(truth.map((b) => [b.id, b]));
  const off = seen.map((b) => labDistance(b.lab, true_.get(b.id)!.lab));
  expect(Math.max(...off)).toBeLessThan(0.03);
  const taken = applyChange(poured, { id: 't', ...takeColours(poured, seen, { to: 'own' }, freshId) });
  const distances = (found: readonly Beneath[]) =>
    toneDistances(poured, allFlats(poured), new Map(found.map((b) => [b.id, b])));
  const trueDistance = new Map(distances(truth).map((t) => [t.flat.id, t.distance]));
  for (const t of distances(seen)) expect(Math.abs(t.distance - trueDistance.get(t.flat.id)!)).toBeLessThan(0.01);
  expect(Math.abs(toneDistances(taken, allFlats(taken), new Map(seen.map((b) => [b.id, b])))[0].distance)).toBeLessThan(
    0.004,
  );
});
