/** A figure as most programs write it. */
const figure = (v: number): string => String(Math.round(v * 1_000) / 1_000);
const place = (x: number, y: number): string => `${figure(x)} ${figure(y)}`;

const NODES = 9;

/** A wandering line: smooth nodes and corners, curves and straight segments; one of three is closed. */
function pathData(i: number): string {
  let [x, y] = [400 + 390 * Math.sin(i * 0.37), 300 - 310 * Math.cos(i * 0.23)];
  let [handleX, handleY] = [9, 4];
  let data = `M${place(x, y)}`;
  for (let turn = i + 1; turn < i + NODES; turn++) {
    const from = place(x + handleX, y + handleY);
    [handleX, handleY] = [20 * Math.sin(turn), 20 * Math.cos(turn * 0.7)];
    [x, y] = [x + 30 * Math.cos(turn * 0.3), y + 25 * Math.sin(turn)];
    data += turn % 17 === 0 ? `L${place(x, y)}` : `C${from} ${place(x - handleX, y - handleY)} ${place(x, y)}`;
    if (turn % 11 === 0) [handleX, handleY] = [3, -4];
  }
  return i % 3 === 0 ? `${data}Z` : data;
}

function path(i: number): string {
  const fill = i % 5 === 0 ? '#a0b1c2' : 'none';
  const width = figure(1 + (i % 7) / 3);
  return `<path d="${pathData(i)}" fill="${fill}" stroke="#27241d" stroke-width="${width}" stroke-linecap="round" stroke-linejoin="round"/>`;
}

/**
 * An SVG to practise reading on. It has of everything that most texts have: what the engine has not met before, it has to learn
 * anew when it comes.
 */
export function practiceSvg(lines: number): string {
  const paths = Array.from({ length: lines }, (_, i) => path(i)).join('\n');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="800px" height="600px" viewBox="0 0 800 600">
<g id="lines">
<title>Lines</title>
${paths}
</g>
</svg>
`;
}
