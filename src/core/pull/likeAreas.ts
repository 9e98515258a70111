import { middlesOf, type Bin } from '../colour/clusters';
import { labDistance, type Lab } from '../colour/oklab';
import type { LabPicture } from '../edges/labPicture';
import { connectedAreas } from '../raster/connectedAreas';
import { absorbed } from './absorbed';
import { evenedPlanes } from './evenedPlanes';
import { meanAt, type Regions } from './mergedRegions';

/** Areas of one colour each: which colour each pixel is of. */
export type LikeAreas = {
  readonly width: number;
  readonly height: number;
  readonly colour: Uint8Array;
  readonly colours: readonly Lab[];
  /** 1 along edges: elsewhere colours change little by little, and where one ends is a matter of chance. */
  readonly firm: Uint8Array;
};

/** Borders are drawn to where the colours change in so many rounds; a neighbour that is of an area tells for it by so much. */
const ROUNDS = 10;
const TOGETHER = 0.012;

/**
 * Regions brought down to some colours, and what is too small or too thin made part of what it is most like of what lies about
 * it. Colours are the middles of sorts of regions, by their size (see `middlesOf`).
 */
export function likeAreas(picture: LabPicture, regions: Regions, count: number, smallest: number): LikeAreas {
  const { width, height } = regions;
  let map = absorbed(regions, smallest);
  const colours = middlesOf(binsOf(map), count);
  const own = colourOf(map, colours);
  map = absorbed(
    joined(map, (k) => own[k]),
    smallest,
  );
  const last = colourOf(map, colours);
  const colour = Uint8Array.from(map.label, (k) => last[k]);
  const { planes, firm } = evenedPlanes(picture);
  drawnToEdges(picture, planes, colour, colours);
  return cleared({ width, height, colour, colours, firm }, smallest);
}

const binsOf = ({ count, size, mean }: Regions): Bin[] =>
  Array.from({ length: count }, (_, k) => ({ lab: meanAt(mean, k), count: size[k], strength: size[k] }));

function colourOf({ count, mean }: Regions, colours: readonly Lab[]): Uint8Array {
  return Uint8Array.from({ length: count }, (_, k) => {
    let best = 0;
    colours.forEach((c, i) => {
      if (labDistance(c, meanAt(mean, k)) < labDistance(colours[best], meanAt(mean, k))) best = i;
    });
    return best;
  });
}

/** Neighbouring regions of the same sort made one. */
function joined({ width, height, label, mean }: Regions, sort: (region: number) => number): Regions {
  const { area, count } = connectedAreas(
    label.map((k) => sort(k)),
    width,
  );
  const size = new Int32Array(count);
  const sum = new Float64Array(3 * count);
  label.forEach((k, i) => {
    size[area[i]]++;
    for (let c = 0; c < 3; c++) sum[3 * area[i] + c] += mean[3 * k + c];
  });
  return {
    width,
    height,
    count,
    label: area,
    size,
    mean: Float32Array.from(sum, (v, i) => v / size[Math.floor(i / 3)]),
  };
}

/**
 * Pixels along borders go over to the neighbouring colour that is more like them, and that most of what is about them has. Along
 * edges that is told by the pixels themselves, where colours change little by little by what is smoothed over a distance.
 */
function drawnToEdges(
  { width, height, channels }: LabPicture,
  planes: readonly Float32Array[],
  colour: Uint8Array,
  colours: readonly Lab[],
): void {
  const far = (i: number, k: number): number => {
    let sum = 0;
    for (let c = 0; c < channels; c++) {
      const d = planes[c][i] - colours[k][c];
      sum += d * d;
    }
    return Math.sqrt(sum);
  };
  for (let round = 0; round < ROUNDS; round++) {
    let changes = 0;
    const was = colour.slice();
    for (let y = 1; y < height - 1; y++)
      for (let x = 1, i = y * width + 1; x < width - 1; x++, i++) {
        const own = was[i];
        if (was[i - 1] === own && was[i + 1] === own && was[i - width] === own && was[i + width] === own) continue;
        let best = own;
        let least = Infinity;
        for (const j of [i, i - 1, i + 1, i - width, i + width]) {
          const k = was[j];
          if (j !== i && k === own) continue;
          let alike = 0;
          for (let v = -width; v <= width; v += width) for (let u = -1; u <= 1; u++) if (was[i + v + u] === k) alike++;
          const cost = far(i, k) - TOGETHER * alike;
          if (cost < least) {
            best = k;
            least = cost;
          }
        }
        if (best !== own) {
          colour[i] = best;
          changes++;
        }
      }
    if (changes === 0) break;
  }
}

/** Crumbs that drawing borders has left are made part of what lies about them. */
function cleared(areas: LikeAreas, smallest: number): LikeAreas {
  const { width, height, colour, colours } = areas;
  const flat: Regions = {
    width,
    height,
    count: colours.length,
    label: Int32Array.from(colour),
    size: new Int32Array(colours.length).fill(1),
    mean: Float32Array.from(colours.flat()),
  };
  const map = absorbed(
    joined(flat, (k) => k),
    smallest,
  );
  const own = colourOf(map, colours);
  return { ...areas, colour: Uint8Array.from(map.label, (k) => own[k]) };
}
