import type { Places } from '../geometry/along';
import { seeded } from '../seeded';
import { Across, type EdgeScale } from './across';
import type { LabPicture } from './labPicture';

/** So many places are probed, each along a straight stretch. */
const PROBES = 800;
const SPACING = 2;
/** Below this no change is seen: rounding to whole numbers makes as much. */
const LEAST = 0.0012;

const known = new WeakMap<LabPicture, Map<string, Float32Array>>();

/**
 * How much the colours of a picture change across any place of it, taken at random: the median a channel, OKLab. Most places
 * are no edges, so this is what the picture's noise and texture make. Worked out once for each picture and scale.
 */
export function noiseFloor(picture: LabPicture, scale: EdgeScale): Float32Array {
  let floors = known.get(picture);
  if (!floors) known.set(picture, (floors = new Map()));
  const key = `${scale.across} ${scale.along}`;
  let floor = floors.get(key);
  if (!floor) floors.set(key, (floor = probed(picture, scale)));
  return floor;
}

function probed(picture: LabPicture, scale: EdgeScale): Float32Array {
  const random = seeded(29);
  const half = Math.ceil((2 * scale.along) / SPACING);
  const found = Array.from({ length: picture.channels }, () => new Float32Array(PROBES));
  for (let k = 0; k < PROBES; k++) {
    const turn = 2 * Math.PI * random();
    const places = straight(picture.width * random(), picture.height * random(), turn, half);
    const change = new Across(picture, places, 0, scale.across).changeAt(half, scale);
    for (let c = 0; c < picture.channels; c++) found[c][k] = Math.abs(change[c]);
  }
  return Float32Array.from(found, (list) => Math.max(LEAST, list.sort()[PROBES >> 1]));
}

/** Places along a straight stretch, so many to either side of its middle. */
function straight(x: number, y: number, turn: number, half: number): Places {
  const n = 2 * half + 1;
  const along = Float64Array.from({ length: n }, (_, i) => SPACING * i);
  const row = (from: number, by: number): Float64Array => along.map((a) => from + (a - SPACING * half) * by);
  return {
    n,
    x: row(x, Math.cos(turn)),
    y: row(y, Math.sin(turn)),
    nx: new Float64Array(n).fill(-Math.sin(turn)),
    ny: new Float64Array(n).fill(Math.cos(turn)),
    along,
    segment: new Int32Array(n),
    t: new Float64Array(n),
    length: SPACING * (n - 1),
    closed: false,
  };
}
