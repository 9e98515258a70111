/** Masks are one byte a pixel, row by row: 1 where something is. */

/** Connected pieces (8 neighbours) of what `isPart` says yes to: called back with the pixels of each. */
export function eachPiece(
  width: number,
  height: number,
  isPart: (i: number) => boolean,
  neighbours: 4 | 8,
  piece: (pixels: number[], touchesEdge: boolean) => void,
): void {
  const seen = new Uint8Array(width * height);
  const stack: number[] = [];
  for (let start = 0; start < width * height; start++) {
    if (seen[start] || !isPart(start)) continue;
    const pixels: number[] = [];
    let touchesEdge = false;
    seen[start] = 1;
    stack.push(start);
    while (stack.length > 0) {
      const i = stack.pop()!;
      pixels.push(i);
      const [x, y] = [i % width, Math.floor(i / width)];
      if (x === 0 || y === 0 || x === width - 1 || y === height - 1) touchesEdge = true;
      for (let dy = -1; dy <= 1; dy++) {
        for (let dx = -1; dx <= 1; dx++) {
          if (neighbours === 4 && dx !== 0 && dy !== 0) continue;
          const [u, v] = [x + dx, y + dy];
          if (u < 0 || v < 0 || u >= width || v >= height) continue;
          const j = v * width + u;
          if (seen[j] || !isPart(j)) continue;
          seen[j] = 1;
          stack.push(j);
        }
      }
    }
    piece(pixels, touchesEdge);
  }
}

/** Fills holes of up to `most` pixels: gaps that the paper's tooth leaves within a stroke. Changes the mask. */
export function fillHoles(mask: Uint8Array, width: number, height: number, most: number): void {
  // A hole lies next to ink: only paper that touches ink within the size of a hole can be part of one.
  const near = new Uint8Array(mask.length);
  const reach = Math.ceil(Math.sqrt(most)) + 1;
  for (let y = 0; y < height; y++) {
    let last = -Infinity;
    for (let x = 0; x < width; x++) {
      if (mask[y * width + x]) last = x;
      else if (x - last <= reach * 4) near[y * width + x] = 1;
    }
    last = Infinity;
    for (let x = width - 1; x >= 0; x--) {
      if (mask[y * width + x]) last = x;
      else if (last - x > reach * 4) near[y * width + x] = 0;
    }
  }
  eachPiece(
    width,
    height,
    (i) => near[i] === 1,
    4,
    (pixels, touchesEdge) => {
      if (pixels.length > most || touchesEdge) return;
      const isEnclosed = pixels.every((i) => [i - 1, i + 1, i - width, i + width].every((j) => mask[j] || near[j]));
      if (isEnclosed) for (const i of pixels) mask[i] = 1;
    },
  );
}
