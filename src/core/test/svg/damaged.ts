import { svgFeatures } from './features';

const pieces = [
  '<g>',
  '</g>',
  '<use href="#a"/>',
  '<g id="a">',
  '<svg>',
  '</svg>',
  '<style>',
  '</style>',
  '<![CDATA[',
  ']]>',
  '&a;',
  '&#0;',
  '"',
  "'",
  '<',
  '>',
  '=',
  '\0',
  '\uFFFF',
  '\uD800',
  'd="M',
  'NaN',
  '1e999',
  '-1e308',
  '99999999',
  'url(#',
  'var(--a)',
  'calc(1px',
  ' transform="',
  'matrix(1e9 0 0 1e9 0 0)',
  'scale(0)',
  'clip-path="url(#c)"',
  'mask="url(#m)"',
  '<clipPath id="c">',
  '<pattern id="p" width="1e-9" height="1">',
  'fill="url(#p)"',
  'viewBox="0 0 0 0"',
  'viewBox="0 0 1e-300 1e300"',
  'stroke-width="1e12"',
  'stroke-dasharray="1e-9"',
  '<!DOCTYPE svg [',
  '<!ENTITY a "b">',
  ']>',
  'xlink:href="data:image/png;base64,AAAA"',
  'opacity="-3"',
  'id="__proto__"',
  'class="constructor"',
  '{',
  '}',
  '*',
  '/*',
  '@import url(x);',
  ' ',
  'rotate(1e308)',
];

const values = [
  '',
  '0',
  '-5',
  '1e9',
  '1e-12',
  'NaN',
  '50%',
  '300%',
  '1em',
  'none',
  'inherit',
  'url(#a)',
  'url(#g)',
  'url(#c)',
  'url(#m)',
  'url(#p)',
  '#a',
  '#g',
  '#s',
  '#p',
  'objectBoundingBox',
  'userSpaceOnUse',
  'rotate(1e9)',
  'scale(0)',
  'scale(1e-9 1e9)',
  'matrix(1 1 1 1 0 0)',
  'skewX(90)',
  'translate(1e300)',
  '0 0 0 0',
  '0 0 1e-9 1e9',
  'M0 0',
  'M0 0L1e8 1e8',
  'M0 0A0 0 0 0 0 5 5Z',
  'M0 0C1 1 1 1 1 1z z z',
  '0,0 1,1 2',
  'red',
  '#12',
  'evenodd',
  'hidden',
  'xMaxYMax slice',
  'var(--a)',
  '--a:1;fill:var(--a)',
  'data:image/png;base64,iVBORw0KGgo=',
];

/** A text of the feature files, cut, doubled, mixed and sprinkled with what hurts; the same one for the same numbers. */
export function damagedSvg(random: () => number): string {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  let text = pick(svgFeatures)[1];
  const times = 1 + Math.floor(random() * 6);
  for (let i = 0; i < times; i++) {
    const [a, b] = [random(), random()].map((r) => Math.floor(r * text.length)).sort((p, q) => p - q);
    // What breaks the text as a whole comes less often than what breaks but a part.
    const how = Math.floor(random() * 9);
    if (how === 0) text = text.slice(0, a) + text.slice(Math.min(b, a + 40));
    else if (how === 1) text = text.slice(0, a) + pick(pieces) + text.slice(a);
    else if (how === 2) text = text.slice(0, b) + text.slice(a, Math.min(b, a + 200)) + text.slice(b);
    else if (how === 3)
      text = text.replace(/\d+/g, (n) => (random() < 0.05 ? pick(['0', '-1', '1e7', '1e-7', '123456789', n + n]) : n));
    else if (how === 4)
      text = text.replace(/#[a-z]\b/g, (n) => (random() < 0.3 ? pick(['#a', '#g', '#c', '#m', '#p', '#s']) : n));
    else if (how === 5) text = withOther(text, pick(svgFeatures)[1]);
    else text = text.replace(/="[^"]*"/g, (v) => (random() < 0.06 ? `="${pick(values)}"` : v));
  }
  return text;
}

/** All that is in another file, behind what is in one. */
const withOther = (text: string, other: string): string =>
  text.replace('</svg>', () => other.slice(other.indexOf('>', other.indexOf('<svg')) + 1));
