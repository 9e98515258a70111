import { polygonOf } from '../src/core/drawing/outline';
import {
  applyChange,
  emptyDrawing,
  firstStyle,
  freshSheet,
  plainPage,
  type Cubic,
  type Drawing,
  type Line,
  type Paint,
  type Reference,
} from '../src/core';
import type { Change } from '../src/core/change/change';
import { changeOf } from '../src/core/change/changeOf';
import type { Edit } from '../src/core/change/edit';
import { edit } from '../src/core/change/edit';
import { areaColour } from '../src/core/colour/areaColour';
import { pullTones } from '../src/core/colour/pullTones';
import { placementOf } from '../src/core/drawing/beneath';
import { runFromCubics } from '../src/core/drawing/fromCubics';
import { cornerAt, cubicsOf } from '../src/core/drawing/run';
import { fromUnit } from '../src/core/drawing/unit';
import { pictureInside, setPictureLook } from '../src/core/edits/cutOut';
import { allFlats, boundsOf, flatAt, laid } from '../src/core/edits/flats';
import { placedArea } from '../src/core/edits/placedArea';
import { withFollowing } from '../src/core/edits/following';
import { groupInside } from '../src/core/edits/keepInside';
import { setSwatch, swatchesOf } from '../src/core/edits/palette';
import { layShades } from '../src/core/edits/shades';
import { tagColours } from '../src/core/edits/sheets';
import { takeColours, type Beneath } from '../src/core/edits/takeColours';
import { arrangementOf } from '../src/core/flats/arrangement';
import { intersectCubics } from '../src/core/geometry/intersection';
import type { ColourImage } from '../src/core/raster/colourImage';
import { canLines, canPage } from '../src/server/simulated/curves/can';

/** The watering can as line art in colour: flats, a palette from the photo, shades in the body, a cut-out, a gradient. */

const SILL = 770;
const FRAME = { minX: 40, minY: 40, maxX: 1560, maxY: 1160 };
/** Lines are a darker tint of what they border. */
const tint: Paint = { of: 'beside', by: 0.6, else: '#27241d' };
const at = (x: number, y: number) => ({ x, y });

/** The lines of the can, in the frame, with the sill's edge behind it: on a page as large as the photo is laid. */
export function canInLines(): Drawing {
  const [width, height] = [fromUnit(160, 'mm'), fromUnit(120, 'mm')];
  const k = width / canPage.width;
  const scaled = (cubics: readonly Cubic[]): Cubic[] => cubics.map((c) => c.map((p) => at(p.x * k, p.y * k)) as Cubic);
  const style = { ...firstStyle, stroke: tint, width: 2.4 };
  const line = (name: string, cubics: readonly Cubic[], closed: boolean): Line => ({
    id: `can-${name}`,
    name,
    style,
    runs: [runFromCubics(scaled(cubics), closed)],
  });
  const empty = emptyDrawing(plainPage({ width, height, unit: 'mm', dpi: 300, ground: '#fffefb' }), {
    id: 'sheet-flats',
    name: 'Flats',
    tag: tagColours[5],
  });
  const { minX, minY, maxX, maxY } = FRAME;
  const frame = [at(minX, minY), at(maxX, minY), at(maxX, maxY), at(minX, maxY)];
  const ground: Line[] = [
    {
      id: 'frame',
      name: 'Frame',
      style,
      runs: [{ closed: true, nodes: frame.map((p) => cornerAt(at(p.x * k, p.y * k))) }],
    },
    ...sill().map((c, i) => line(`sill ${i + 1}`.replace(' ', '-'), [c], false)),
  ];
  const can = canLines.map((l) => line(l.part, l.cubics, l.closed));
  return {
    ...empty,
    sheets: [
      empty.sheets[0],
      { ...freshSheet('sheet-sill', 'Sill and frame', tagColours[2], style), state: 'traced', items: ground },
      { ...freshSheet('sheet-can', 'Can', tagColours[0], style), state: 'traced', items: can },
    ],
  };
}

/** The sill's edge where the can does not hide it. */
function sill(): Cubic[] {
  const straight = (a: number, b: number): Cubic => [at(a, SILL), at(a, SILL), at(b, SILL), at(b, SILL)];
  const whole = straight(FRAME.minX, FRAME.maxX);
  const xs = canLines
    .flatMap((l) => l.cubics)
    .flatMap((c) => intersectCubics(c, whole).map((m) => m.point.x))
    .sort((a, b) => a - b);
  return [straight(FRAME.minX, xs[0]), straight(xs[1], xs[2]), straight(xs.at(-1)!, FRAME.maxX)];
}

/** What is beneath each flat in a picture that lies on the page. */
export const beneathIn = (d: Drawing, image: ColourImage, r: Reference): Beneath[] => {
  const { inPicture } = placementOf(r, image);
  return allFlats(d).flatMap((f) => {
    const found = areaColour(
      image,
      f.runs.map((run) => polygonOf(run).map(inPicture)),
    );
    return found ? [{ id: f.id, ...found }] : [];
  });
};

/** The colouring, change by change, as a hand would do it with what the program offers. */
export function colouring(start: Drawing, image: ColourImage, r: Reference): Change[] {
  let n = 0;
  const freshId = (): string => `made-${n++}`;
  const changes: Change[] = [];
  let d = start;
  const make = (asked: Edit): void => {
    const change = changeOf(withFollowing(d, asked, freshId), freshId());
    changes.push(change);
    d = applyChange(d, change);
  };
  const k = start.page.width / canPage.width;
  const flat = (x: number, y: number): string => flatAt(d, at(x * k, y * k))!.id;
  const areas = arrangementOf(
    boundsOf(d).map((b) => b.run),
    { gap: 4 },
  ).areas();
  const pour = { fill: '#c8b89a', gap: 4, freshId };
  make(laid(d, areas.map(placedArea), pour, `Pour ${areas.length} areas`).edit);
  make(takeColours(d, beneathIn(d, image, r), { to: 'few', count: 8 }, freshId));
  for (const { id } of swatchesOf(d)) make(setSwatch(d, id, { group: 'From the photo' }));
  const [body, board] = [flat(700, 700), flat(200, 1000)];
  const { inPicture, onPage } = placementOf(r, image);
  const outline = allFlats(d)
    .find((f) => f.id === body)!
    .runs.map((run) => polygonOf(run).map(inPicture));
  const tones = pullTones(image, outline, { steps: 3, smooth: 12, tolerance: 3 })!;
  const shades = tones.parts.map(({ loops, tone }) => ({
    runs: loops.map((l) =>
      runFromCubics(
        l.map((c) => c.map(onPage) as Cubic),
        true,
      ),
    ),
    by: tones.tone - tone,
  }));
  make(layShades(d, body, shades, { blend: 'normal', opacity: 1 }, freshId));
  make(pictureInside(d, r, board, freshId));
  const cut = groupInside(d, board)!.item;
  const picture = 'items' in cut ? cut.items[0].id : '';
  make(setPictureLook(d, picture, { kind: 'twoTone', on: true, dark: '#8f7c5e', light: '#c9b694', level: 168 }));
  make(sky(d, flat(200, 300)));
  return changes;
}

/** The garden goes over from light to dark: a gradient of the drawing's own. */
function sky(d: Drawing, garden: string): Edit {
  const flat = allFlats(d).find((f) => f.id === garden)!;
  const { minY, maxY } = { minY: 0, maxY: Math.max(...flat.runs.flatMap(cubicsOf).map((c) => c[3].y)) };
  const gradient = {
    id: 'garden',
    name: 'Garden',
    kind: 'linear' as const,
    space: 'page' as const,
    from: at(0, minY),
    to: at(0, maxY),
    stops: [
      { at: 0, colour: '#b9c78f' },
      { at: 1, colour: flat.fill as string },
    ],
  };
  return edit(
    'Paint with a gradient',
    { step: 'setDrawing', before: { gradients: [] }, after: { gradients: [gradient] } },
    {
      step: 'setFlat',
      sheet: 'sheet-flats',
      id: garden,
      before: { fill: flat.fill },
      after: { fill: { gradient: 'garden' } },
    },
  );
}
