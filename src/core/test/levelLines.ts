import { firstStyle, type GrayImage, type Line, type Point } from '..';
import { inkPicture } from './inkPicture';

const p = (x: number, y: number): Point => ({ x, y });

/** A line of straight segments from left to right, its nodes at these heights. */
export const levelLine = (id: string, ...ys: number[]): Line => ({
  id,
  style: firstStyle,
  runs: [
    {
      closed: false,
      nodes: ys.map((y, i) => ({ point: p(40 + (320 * i) / (ys.length - 1), y), in: null, out: null, kind: 'corner' })),
    },
  ],
});

/** A picture of 400 x 300 px with two level strokes of 6 px, at the heights of 100 and 200. */
export const twoStrokes = (): GrayImage =>
  inkPicture(
    400,
    300,
    [100, 200].map((y) => ({ cubics: [[p(30, y), p(140, y), p(260, y), p(370, y)]], width: 6 })),
  );
