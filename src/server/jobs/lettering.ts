import path from 'node:path';
import * as fontkit from 'fontkit';
import type { Lettering } from '@/core/deliver/paper';
import { runFromCubics } from '@/core/drawing/fromCubics';
import type { Run } from '@/core/drawing/schema';
import { straightCubic, type Cubic } from '@/core/geometry/cubic';
import type { Point } from '@/core/geometry/point';

/** The program's own face, in the two files that hold its letters. */
const FILES = ['latin', 'latin-ext'].map((part) =>
  path.join(
    /*turbopackIgnore: true*/ process.cwd(),
    'node_modules',
    '@fontsource',
    'figtree',
    'files',
    `figtree-${part}-600-normal.woff`,
  ),
);

let fonts: fontkit.Font[] | undefined;

/** Text as outlines, one em high. Characters that the face does not have are left out. */
export function lettering(text: string): Lettering {
  fonts ??= FILES.map((file) => fontkit.openSync(file) as fontkit.Font);
  const runs: Run[] = [];
  let x = 0;
  for (const { font, part } of inFonts(text, fonts)) {
    const em = font.unitsPerEm;
    const { glyphs, positions } = font.layout(part);
    glyphs.forEach((glyph, i) => {
      const { xAdvance, xOffset, yOffset } = positions[i];
      const place = (px: number, py: number): Point => ({ x: x + (px + xOffset) / em, y: -(py + yOffset) / em });
      runs.push(...outlines(glyph.path.commands as Command[], place));
      x += xAdvance / em;
    });
  }
  return { runs, width: x };
}

/** A text in pieces, each with a font that has all of it. */
function inFonts(text: string, all: readonly fontkit.Font[]): { font: fontkit.Font; part: string }[] {
  const parts: { font: fontkit.Font; part: string }[] = [];
  for (const letter of text) {
    const font = all.find((f) => f.hasGlyphForCodePoint(letter.codePointAt(0)!));
    if (!font) continue;
    const last = parts.at(-1);
    if (last?.font === font) last.part += letter;
    else parts.push({ font, part: letter });
  }
  return parts;
}

type Command = { command: 'moveTo' | 'lineTo' | 'quadraticCurveTo' | 'bezierCurveTo' | 'closePath'; args: number[] };

function outlines(commands: readonly Command[], place: (x: number, y: number) => Point): Run[] {
  const runs: Run[] = [];
  let cubics: Cubic[] = [];
  let at: Point = { x: 0, y: 0 };
  const end = (): void => {
    if (cubics.length > 0) {
      const [first, last] = [cubics[0][0], cubics.at(-1)![3]];
      if (Math.hypot(first.x - last.x, first.y - last.y) > 1e-6) cubics.push(straightCubic(last, first));
      runs.push(runFromCubics(cubics, true));
    }
    cubics = [];
  };
  for (const { command, args } of commands) {
    const points = Array.from({ length: args.length / 2 }, (_, i) => place(args[2 * i], args[2 * i + 1]));
    const to = points.at(-1) ?? at;
    if (command === 'moveTo' || command === 'closePath') end();
    else if (command === 'lineTo') cubics.push(straightCubic(at, to));
    else if (command === 'bezierCurveTo') cubics.push([at, points[0], points[1], to]);
    else {
      // A quadratic as a cubic, exactly.
      const toward = (p: Point): Point => ({
        x: p.x + (2 / 3) * (points[0].x - p.x),
        y: p.y + (2 / 3) * (points[0].y - p.y),
      });
      cubics.push([at, toward(at), toward(to), to]);
    }
    at = to;
  }
  end();
  return runs;
}
