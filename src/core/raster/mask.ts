/** Masks are one byte a pixel, row by row: 1 where something is. */

/** Connected pieces (4 or 8 neighbours) of what a mask holds: called back with the pixels of each, from the top down. */
export function eachPiece(
  width: number,
  height: number,
  mask: Uint8Array,
  neighbours: 4 | 8,
  piece: (pixels: number[], touchesEdge: boolean) => void,
): void {
  const left = mask.slice();
  const around =
    neighbours === 4 ? [1, -1, width, -width] : [1, -1, width, -width, width + 1, width - 1, 1 - width, -1 - width];
  for (let start = left.indexOf(1); start >= 0; start = left.indexOf(1, start + 1)) {
    // What was found and is still to be looked about from is the list's own end.
    const pixels = [start];
    let touchesEdge = false;
    left[start] = 0;
    for (let k = 0; k < pixels.length; k++) {
      const i = pixels[k];
      const x = i % width;
      const isAtSide = x === 0 || x === width - 1;
      if (isAtSide || i < width || i >= width * (height - 1)) touchesEdge = true;
      for (const by of around) {
        const j = i + by;
        if (left[j] !== 1) continue;
        if (isAtSide && Math.abs((j % width) - x) > 1) continue;
        left[j] = 0;
        pixels.push(j);
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
  eachPiece(width, height, near, 4, (pixels, touchesEdge) => {
    if (pixels.length > most || touchesEdge) return;
    const isEnclosed = pixels.every((i) => [i - 1, i + 1, i - width, i + width].every((j) => mask[j] || near[j]));
    if (isEnclosed) for (const i of pixels) mask[i] = 1;
  });
}
