import { converter, parse } from 'culori';

const toLch = converter('oklch');

/** Hues by where they begin on the circle, degrees. */
const hues: readonly [number, string][] = [
  [0, 'pink'],
  [14, 'red'],
  [42, 'orange'],
  [78, 'ochre'],
  [100, 'yellow'],
  [116, 'green'],
  [168, 'teal'],
  [212, 'blue'],
  [286, 'violet'],
  [328, 'purple'],
  [350, 'pink'],
];
const GREY = 0.025;
/** Below so much chroma a colour is dull, above strong. */
const DULL = 0.075;

/** A plain word or two for a colour: "pale green", "deep red". */
export function colourName(colour: string): string {
  const { l, c, h = 0 } = toLch(parse(colour)!);
  if (c < GREY) return l > 0.97 ? 'white' : l > 0.8 ? 'pale grey' : l > 0.5 ? 'grey' : l > 0.22 ? 'dark grey' : 'black';
  const hue = hues.findLast(([from]) => h >= from)![1];
  const isBrown = (hue === 'orange' || hue === 'ochre') && l < 0.58;
  const word = isBrown ? 'brown' : hue;
  const light = l > 0.82 ? 'pale' : l < 0.42 ? 'deep' : c < DULL ? 'dull' : '';
  return [light, word].filter(Boolean).join(' ');
}
