import { composed } from './composed';
import { leaf, star, stops, svg } from './pieces';
const shapes: Record<string, string> = {
  path: svg(`<path d="${leaf}" fill="#7a9e7e" stroke="#2f3e46" stroke-width="3"/>`),
  'relative commands': svg(
    '<path d="m20 20h60v40l-30 20h-30z m80 0c10 40 60 40 70 0s-20-10-30 0t-20 30q10 40-20 20a20 30 20 0 0-10-30z" fill="#b56576" stroke="#355070" stroke-width="2"/>',
  ),
  'arcs of every flag': svg(
    [0, 1]
      .flatMap((l) =>
        [0, 1].map(
          (s) =>
            `<path d="M${30 + 80 * l} ${40 + 60 * s}A30 20 30 ${l} ${s} ${80 + 80 * l} ${50 + 60 * s}" fill="none" stroke="#355070" stroke-width="4"/>`,
        ),
      )
      .join(''),
  ),
  'numbers run together': svg(
    '<path d="M10-.5L.5e1 100-20.5.5l1.5.5 40,60.25-3Z M100 20l-10 80 60-20.5.5-40.25z" fill="#e88c7d"/>',
  ),
  'basic shapes': svg(
    '<rect x="10" y="10" width="60" height="40" fill="#6d597a"/><circle cx="120" cy="40" r="28" fill="#b56576"/><ellipse cx="60" cy="105" rx="45" ry="25" fill="#e56b6f"/><line x1="120" y1="80" x2="190" y2="140" stroke="#355070" stroke-width="6"/>',
  ),
  'rounded rectangles': svg(
    '<rect x="10" y="10" width="80" height="50" rx="12" fill="#6d597a"/><rect x="110" y="10" width="70" height="50" rx="60" ry="10" fill="#b56576"/><rect x="10" y="80" width="80" height="50" ry="9" fill="#e56b6f"/>',
  ),
  'polylines and polygons': svg(
    '<polyline points="10,20 60 60 20,110 90,130" fill="none" stroke="#355070" stroke-width="4"/><polygon points="110,20 190,40 150,130" fill="#eaac8b" stroke="#6d597a" stroke-width="3"/>',
  ),
  'open path filled': svg('<path d="M20 20L180 30L120 130" fill="#b8c0a8" stroke="#333" stroke-width="5"/>'),
  'even-odd': svg(`<path d="${star}M70 60h60v60h-60z" fill="#457b9d" fill-rule="evenodd"/>`),
  'nonzero hole': svg('<path d="M20 20H180V130H20Z M60 50V100H140V50Z" fill="#457b9d"/>'),
  'points drawn by caps': svg(
    '<path d="M50 50h0M100 75l0 0M150 100z" stroke="#333" stroke-width="30" stroke-linecap="round" fill="none"/>',
  ),
  'many subpaths': svg(
    `<path d="${Array.from({ length: 30 }, (_, i) => `M${10 + (i % 6) * 30} ${10 + Math.floor(i / 6) * 28}h18v16h-18z`).join('')}" fill="#588157"/>`,
  ),
};

const strokes: Record<string, string> = {
  'caps and joins': svg(
    ['butt', 'round', 'square']
      .map(
        (cap, i) =>
          `<path d="M20 ${25 + 45 * i}L100 ${40 + 45 * i}L180 ${20 + 45 * i}" fill="none" stroke="#355070" stroke-width="16" stroke-linecap="${cap}" stroke-linejoin="${['miter', 'round', 'bevel'][i]}"/>`,
      )
      .join(''),
  ),
  'miter limit': svg(
    '<path d="M20 40L100 30L20 50" fill="none" stroke="#900" stroke-width="8" stroke-miterlimit="20"/><path d="M20 100L100 90L20 110" fill="none" stroke="#900" stroke-width="8" stroke-miterlimit="2"/>',
  ),
  dashes: svg(
    '<path d="M10 30H190" stroke="#333" stroke-width="8" stroke-dasharray="20 10"/><path d="M10 70H190" stroke="#333" stroke-width="8" stroke-dasharray="5,15,25"/><path d="M10 110H190" stroke="#333" stroke-width="8" stroke-dasharray="20 12" stroke-dashoffset="11" stroke-linecap="round"/>',
  ),
  'dashes by path length': svg(
    '<path d="M10 60C60 0 140 120 190 60" stroke="#333" stroke-width="8" fill="none" pathLength="10" stroke-dasharray="1 1"/>',
  ),
  'stroke below fill': svg(
    `<path d="${star}" fill="#ffd166" stroke="#073b4c" stroke-width="14" paint-order="stroke"/>`,
  ),
  'widths in per cent': svg(
    '<path d="M20 30H180" stroke="#333" stroke-width="4%"/><rect x="10%" y="40%" width="50%" height="40%" fill="#888"/>',
  ),
  'constant width': svg(
    '<g transform="scale(3 2)"><path d="M8 10L55 60" stroke="#c00" stroke-width="5" vector-effect="non-scaling-stroke"/></g>',
  ),
  'stretched strokes': svg(
    '<g transform="translate(10 10) scale(3 .8)"><circle cx="28" cy="80" r="20" fill="#eee" stroke="#355070" stroke-width="6"/></g>',
  ),
  'skewed strokes': svg(
    '<g transform="translate(-10 10) skewX(35)"><rect x="20" y="20" width="70" height="80" fill="none" stroke="#355070" stroke-width="12" stroke-dasharray="30 8"/></g>',
  ),
  'opacity of strokes and fills': svg(
    `<rect y="60" width="200" height="30" fill="#222"/><path d="${leaf}" fill="#e63946" fill-opacity=".5" stroke="#1d3557" stroke-width="16" stroke-opacity="40%"/>`,
  ),
};

const placing: Record<string, string> = {
  transforms: svg(
    '<g transform="translate(100 75)"><g transform="rotate(30)"><rect x="-60" y="-20" width="120" height="40" fill="#2a9d8f"/></g><g transform="matrix(.5 .2 -.3 .8 20 10)"><circle r="40" fill="#e76f51" fill-opacity=".7"/></g></g>',
  ),
  'rotate about a place': svg(
    '<rect x="70" y="50" width="60" height="50" fill="#264653" transform="rotate(25 100 75) translate(10,-4) skewY(10)"/>',
  ),
  'css transform': svg(
    '<rect x="70" y="50" width="60" height="50" fill="#264653" style="transform:rotate(30deg);transform-origin:100px 75px"/>',
  ),
  'a viewBox': svg(
    '<circle cx="50" cy="50" r="40" fill="#f4a261" stroke="#264653" stroke-width="4"/>',
    'width="200" height="150" viewBox="0 0 100 100"',
  ),
  'viewBox xMinYMax': svg(
    '<circle cx="50" cy="50" r="40" fill="#f4a261"/>',
    'width="200" height="100" viewBox="0 0 100 100" preserveAspectRatio="xMaxYMin meet"',
  ),
  'viewBox slice': svg(
    '<circle cx="50" cy="50" r="40" fill="#f4a261"/><rect width="20" height="20" fill="#264653"/>',
    'width="200" height="100" viewBox="0 0 100 100" preserveAspectRatio="xMidYMax slice"',
  ),
  'viewBox stretched': svg(
    '<circle cx="50" cy="50" r="40" fill="#f4a261"/>',
    'width="200" height="100" viewBox="0 0 100 100" preserveAspectRatio="none"',
  ),
  'viewBox off the origin': svg(
    '<circle cx="0" cy="0" r="40" fill="#f4a261"/>',
    'width="200" height="150" viewBox="-100 -75 200 150"',
  ),
  'only a viewBox': svg('<rect x="30" y="30" width="100" height="60" fill="#6a994e"/>', 'viewBox="0 0 200 150"'),
  'sizes in mm': svg(
    '<rect x="10" y="5" width="30" height="20" fill="#6a994e" stroke="#386641" stroke-width="1mm"/>',
    'width="50mm" height="40mm" viewBox="0 0 50 40"',
  ),
  'lengths with units': svg(
    '<rect x="5mm" y=".2in" width="3cm" height="40pt" fill="#386641"/><circle cx="10pc" cy="80" r="1.2em" font-size="20" fill="#a7c957"/>',
  ),
  'nested svg': svg(
    '<svg x="20" y="10" width="80" height="60" viewBox="0 0 40 40"><circle cx="20" cy="20" r="25" fill="#bc4749"/></svg><svg x="110" y="60" width="80" height="80" viewBox="0 0 10 10" preserveAspectRatio="none"><rect x="1" y="1" width="8" height="8" fill="#386641"/></svg>',
  ),
  'nested svg overflowing': svg(
    '<svg x="60" y="40" width="60" height="50" overflow="visible"><circle cx="30" cy="25" r="45" fill="#bc4749"/></svg>',
  ),
  'nested svg turned': svg(
    '<g transform="rotate(20 100 75)"><svg x="60" y="40" width="70" height="50"><circle cx="30" cy="25" r="45" fill="#bc4749"/></svg></g>',
  ),
};

const repeated: Record<string, string> = {
  use: svg(
    '<defs><path id="l" d="M0 0C10 -20 40 -20 50 0C40 20 10 20 0 0Z"/></defs><use href="#l" x="20" y="30" fill="#606c38"/><use xlink:href="#l" x="90" y="60" fill="#283618" transform="rotate(10)"/><use href="#l" transform="translate(40 110) scale(2 1)" fill="#dda15e" stroke="#bc6c25" stroke-width="3"/>',
  ),
  'use of a group': svg(
    '<defs><g id="a" fill="#606c38"><circle r="12"/><rect x="10" y="-4" width="20" height="8" fill="#bc6c25"/></g></defs><use href="#a" x="30" y="40"/><use href="#a" x="90" y="80" opacity=".5"/><g transform="translate(150 40) scale(1.5)"><use href="#a"/></g>',
  ),
  'use of a use': svg(
    '<defs><circle id="c" r="8" fill="#bc6c25"/><g id="two"><use href="#c" x="-15"/><use href="#c" x="15"/></g></defs><use href="#two" x="60" y="50"/><use href="#two" x="120" y="100"/>',
  ),
  symbol: svg(
    '<symbol id="s" viewBox="0 0 20 20"><circle cx="10" cy="10" r="9" fill="#606c38"/><path d="M4 10H16" stroke="#fff" stroke-width="3"/></symbol><use href="#s" x="10" y="10" width="60" height="60"/><use href="#s" x="90" y="40" width="100" height="50"/>',
  ),
  'symbol cut at its viewport': svg(
    '<symbol id="s" viewBox="0 0 20 20"><circle cx="10" cy="10" r="14" fill="#606c38"/></symbol><use href="#s" x="40" y="30" width="90" height="90"/>',
  ),
  'used svg': svg(
    '<defs><svg id="v" width="40" height="40" viewBox="0 0 10 10"><rect width="6" height="9" fill="#457b9d"/></svg></defs><use href="#v" x="30" y="20"/><use href="#v" x="90" y="20" width="80" height="80"/>',
  ),
  switch: svg(
    '<switch><rect systemLanguage="de" width="200" height="150" fill="#f00"/><rect systemLanguage="en" x="20" y="20" width="160" height="110" fill="#457b9d"/><rect width="200" height="150" fill="#0f0"/></switch>',
  ),
  'switch without a language': svg(
    '<switch><rect requiredExtensions="http://x.test/" width="200" height="150" fill="#f00"/><circle cx="100" cy="75" r="50" fill="#457b9d"/></switch>',
  ),
};

const gradients: Record<string, string> = {
  'linear gradient': svg(
    `<defs><linearGradient id="g">${stops}</linearGradient></defs><rect x="20" y="20" width="160" height="110" fill="url(#g)"/>`,
  ),
  'slanting linear gradient': svg(
    `<defs><linearGradient id="g" x1="0" y1="0" x2="1" y2="1">${stops}</linearGradient></defs><rect x="10" y="40" width="180" height="60" fill="url(#g)"/>`,
  ),
  'linear gradient on the page': svg(
    `<linearGradient id="g" gradientUnits="userSpaceOnUse" x1="40" y1="20" x2="150" y2="120">${stops}</linearGradient><path d="${leaf}" fill="url(#g)"/><circle cx="150" cy="110" r="30" fill="url(#g)"/>`,
  ),
  'gradient transformed': svg(
    `<linearGradient id="g" gradientTransform="rotate(40 .5 .5) skewX(20)">${stops}</linearGradient><rect x="20" y="20" width="160" height="110" fill="url(#g)"/>`,
  ),
  'radial gradient': svg(
    `<radialGradient id="g">${stops}</radialGradient><circle cx="100" cy="75" r="65" fill="url(#g)"/>`,
  ),
  'oval radial gradient': svg(
    `<radialGradient id="g">${stops}</radialGradient><rect x="10" y="30" width="180" height="80" fill="url(#g)"/>`,
  ),
  'radial with a focus': svg(
    `<radialGradient id="g" cx=".5" cy=".5" r=".5" fx=".25" fy=".3">${stops}</radialGradient><circle cx="100" cy="75" r="70" fill="url(#g)"/>`,
  ),
  'radial turned': svg(
    `<radialGradient id="g" gradientUnits="userSpaceOnUse" cx="0" cy="0" r="50" gradientTransform="translate(100 75) rotate(30) scale(1.4 .6)">${stops}</radialGradient><rect width="200" height="150" fill="url(#g)"/>`,
  ),
  'gradient repeated': svg(
    `<linearGradient id="g" x2=".2" spreadMethod="repeat">${stops}</linearGradient><rect x="20" y="20" width="160" height="110" fill="url(#g)"/>`,
  ),
  'gradient to and fro': svg(
    `<linearGradient id="g" x1=".3" x2=".5" spreadMethod="reflect">${stops}</linearGradient><rect x="20" y="20" width="160" height="110" fill="url(#g)"/>`,
  ),
  'rings to and fro': svg(
    `<radialGradient id="g" r=".15" spreadMethod="reflect">${stops}</radialGradient><rect x="20" y="5" width="160" height="140" fill="url(#g)"/>`,
  ),
  'gradient chain': svg(
    `<linearGradient id="a">${stops}</linearGradient><linearGradient id="b" xlink:href="#a" y2="1" x2="0"/><linearGradient id="c" href="#b" gradientUnits="userSpaceOnUse" y1="20" y2="120"/><rect x="10" y="20" width="80" height="110" fill="url(#b)"/><rect x="110" y="20" width="80" height="110" fill="url(#c)"/>`,
  ),
  'stops let through': svg(
    '<rect y="60" width="200" height="30" fill="#333"/><linearGradient id="g"><stop offset="20%" stop-color="#e63946" stop-opacity="0"/><stop offset="80%" style="stop-color:#1d3557;stop-opacity:.9"/></linearGradient><rect x="10" y="20" width="180" height="110" fill="url(#g)"/>',
  ),
  'gradient strokes': svg(
    `<linearGradient id="g" gradientUnits="userSpaceOnUse" x1="20" x2="180">${stops}</linearGradient><path d="M20 110C60 0 140 0 180 110" fill="none" stroke="url(#g)" stroke-width="18" stroke-linecap="round"/>`,
  ),
  'oval gradient strokes': svg(
    `<radialGradient id="g">${stops}</radialGradient><path d="M20 110C60 10 140 10 180 110" fill="none" stroke="url(#g)" stroke-width="18"/>`,
  ),
  'hard stops': svg(
    '<linearGradient id="g"><stop offset=".3" stop-color="#2a9d8f"/><stop offset=".3" stop-color="#e9c46a"/><stop offset=".7" stop-color="#e9c46a"/><stop offset=".7" stop-color="#e76f51"/></linearGradient><circle cx="100" cy="75" r="60" fill="url(#g)"/>',
  ),
  'gradient under a turn': svg(
    `<linearGradient id="g">${stops}</linearGradient><g transform="rotate(30 100 75)"><rect x="40" y="40" width="120" height="70" fill="url(#g)"/></g>`,
  ),
  'gradient opacity': svg(
    `<rect y="60" width="200" height="30" fill="#333"/><linearGradient id="g">${stops}</linearGradient><rect x="20" y="20" width="160" height="110" fill="url(#g)" fill-opacity=".5"/>`,
  ),
  'single stop': svg(
    '<linearGradient id="g"><stop offset=".4" stop-color="#2a9d8f"/></linearGradient><rect x="20" y="20" width="160" height="110" fill="url(#g)"/>',
  ),
  'paint that is missing': svg(
    '<rect x="20" y="20" width="70" height="110" fill="url(#none) #2a9d8f"/><rect x="110" y="20" width="70" height="110" fill="url(#none)" stroke="#333" stroke-width="4"/>',
  ),
};

/** SVG files as others write them, each for one feature or for several together: by name, 200 by 150 unless they say. */
export const svgFeatures: readonly (readonly [string, string])[] = [
  shapes,
  strokes,
  placing,
  repeated,
  gradients,
  ...composed,
].flatMap((group) => Object.entries(group));
