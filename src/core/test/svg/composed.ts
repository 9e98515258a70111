import { embedded } from './embeddedPictures';
import { leaf, star, stops, svg } from './pieces';

const cutting: Record<string, string> = {
  clip: svg(
    `<clipPath id="c"><circle cx="100" cy="75" r="50"/></clipPath><rect width="200" height="150" fill="#e76f51" clip-path="url(#c)"/>`,
  ),
  'clip of a group': svg(
    `<clipPath id="c"><path d="${star}"/></clipPath><g clip-path="url(#c)"><rect width="100" height="150" fill="#e76f51"/><rect x="100" width="100" height="150" fill="#264653"/></g>`,
  ),
  'clip by the box': svg(
    '<clipPath id="c" clipPathUnits="objectBoundingBox"><circle cx=".5" cy=".5" r=".4"/></clipPath><rect x="20" y="20" width="160" height="100" fill="#2a9d8f" clip-path="url(#c)"/>',
  ),
  'clip of several shapes': svg(
    '<clipPath id="c"><circle cx="70" cy="75" r="45"/><circle cx="120" cy="75" r="45"/><rect x="150" y="20" width="30" height="110"/></clipPath><rect width="200" height="150" fill="#e76f51" clip-path="url(#c)"/>',
  ),
  'clip even-odd': svg(
    `<clipPath id="c"><path clip-rule="evenodd" d="M20 20H180V130H20Z M60 50H140V100H60Z"/></clipPath><rect width="200" height="150" fill="#264653" clip-path="url(#c)"/>`,
  ),
  'clip in a clip': svg(
    '<clipPath id="a"><circle cx="80" cy="75" r="50"/></clipPath><clipPath id="b" clip-path="url(#a)"><rect x="60" y="30" width="120" height="90"/></clipPath><rect width="200" height="150" fill="#264653" clip-path="url(#b)"/>',
  ),
  'clip by use': svg(
    `<defs><path id="s" d="${star}"/></defs><clipPath id="c"><use href="#s" transform="translate(10 5) scale(.9)"/></clipPath><rect width="200" height="150" fill="#264653" clip-path="url(#c)"/>`,
  ),
  'clip transformed': svg(
    '<clipPath id="c" transform="rotate(20 100 75)"><rect x="60" y="30" width="80" height="90"/></clipPath><g transform="translate(10 0)"><rect width="200" height="150" fill="#264653" clip-path="url(#c)"/></g>',
  ),
  'a clip by the box around another, used twice': svg(
    '<clipPath id="b" clipPathUnits="objectBoundingBox"><circle cx=".5" cy=".5" r=".5"/></clipPath><clipPath id="a" clip-path="url(#b)"><rect width="200" height="110"/></clipPath><rect x="10" y="20" width="80" height="100" fill="#264653" clip-path="url(#a)"/><rect x="110" y="10" width="60" height="120" fill="#e76f51" clip-path="url(#a)"/>',
  ),
  'mask of a dimmed group': svg(
    '<rect y="60" width="200" height="30" fill="#333"/><mask id="m"><g opacity=".5"><circle cx="100" cy="75" r="60" fill="#fff"/></g></mask><rect width="200" height="150" fill="#bc6c25" mask="url(#m)"/>',
  ),
  'mask of white': svg(
    `<mask id="m"><path d="${leaf}" fill="#fff"/></mask><rect width="200" height="150" fill="#bc6c25" mask="url(#m)"/>`,
  ),
  'mask with a hole': svg(
    '<mask id="m"><rect width="200" height="150" fill="#fff"/><circle cx="100" cy="75" r="40" fill="#000"/><circle cx="180" cy="130" r="40"/></mask><rect x="10" y="10" width="180" height="130" fill="#283618" mask="url(#m)"/>',
  ),
  'mask of grey': svg(
    '<rect y="60" width="200" height="30" fill="#333"/><mask id="m" maskContentUnits="objectBoundingBox"><rect x=".1" y=".1" width=".8" height=".8" fill="#808080"/></mask><rect x="10" y="10" width="180" height="130" fill="#dda15e" mask="url(#m)"/>',
  ),
};

const laying: Record<string, string> = {
  'group opacity': svg(
    '<rect y="60" width="200" height="30" fill="#333"/><g opacity=".5"><circle cx="80" cy="75" r="45" fill="#e63946"/><circle cx="120" cy="75" r="45" fill="#457b9d"/></g>',
  ),
  'opacity of single ones': svg(
    '<rect y="60" width="200" height="30" fill="#333"/><circle cx="80" cy="75" r="45" fill="#e63946" opacity=".6"/><path d="M100 20L180 130" stroke="#457b9d" stroke-width="20" opacity=".6"/>',
  ),
  'nested opacity': svg(
    '<rect y="60" width="200" height="30" fill="#333"/><g opacity=".8"><g opacity=".5"><circle cx="80" cy="75" r="45" fill="#e63946"/></g><circle cx="120" cy="75" r="45" fill="#457b9d"/></g>',
  ),
  blends: svg(
    `<rect width="200" height="150" fill="#d9c9a8"/>${['multiply', 'screen', 'overlay', 'darken', 'lighten', 'difference', 'color-dodge', 'hard-light'].map((b, i) => `<rect x="${5 + 48 * (i % 4)}" y="${10 + 70 * Math.floor(i / 4)}" width="44" height="60" fill="#5a7d9a" style="mix-blend-mode:${b}"/>`).join('')}`,
  ),
  'blend of a group': svg(
    '<rect width="200" height="150" fill="#ffd6a5"/><g style="mix-blend-mode:multiply"><circle cx="80" cy="75" r="45" fill="#9bf6ff"/><circle cx="120" cy="75" r="45" fill="#ffadad"/></g>',
  ),
  'hidden and shown again': svg(
    '<g visibility="hidden"><rect width="100" height="150" fill="#e63946"/><rect x="100" width="100" height="150" fill="#457b9d" visibility="visible"/></g><g display="none"><rect width="200" height="150"/></g>',
  ),
};

const styles: Record<string, string> = {
  'style attribute': svg(`<path d="${leaf}" style="fill:#8ecae6; stroke : rgb(2, 48, 71); stroke-width:4px"/>`),
  'style sheet': svg(
    `<style>.a{fill:#8ecae6}.b{fill:#ffb703;stroke:#023047;stroke-width:4}#c{fill:#fb8500}rect{stroke:#219ebc;stroke-width:2}</style><rect class="a" x="10" y="10" width="80" height="50"/><rect class="a b" x="110" y="10" width="80" height="50"/><rect id="c" class="b" x="10" y="80" width="80" height="50"/>`,
  ),
  'selectors of every kind': svg(
    `<style>g > rect{fill:#219ebc} g rect.x{fill:#ffb703} [data-k="v"]{fill:#fb8500} rect:first-child{stroke:#023047;stroke-width:6} rect + circle{fill:#8ecae6} rect ~ ellipse{fill:#606c38} *{opacity:.9}</style><g><rect x="10" y="10" width="60" height="50"/><rect class="x" x="80" y="10" width="50" height="50"/><circle cx="160" cy="35" r="25"/><ellipse cx="60" cy="110" rx="40" ry="20"/><rect data-k="v" x="120" y="80" width="60" height="50"/></g>`,
  ),
  'specificity and importance': svg(
    '<style>.a.b{fill:#606c38}.b{fill:#f00}rect{fill:#0f0}.c{fill:#283618 !important}</style><rect class="a b" x="10" y="20" width="80" height="110"/><rect class="c" x="110" y="20" width="80" height="110" style="fill:#f00"/>',
  ),
  'style sheet in CDATA at the end': svg(
    '<circle class="k" cx="100" cy="75" r="50"/><style type="text/css"><![CDATA[ .k { fill: #bc4749; stroke: #386641; stroke-width: 8 } ]]></style>',
  ),
  variables: svg(
    '<style>svg{--ink:#386641;--wide:6}.a{stroke:var(--ink);stroke-width:var(--wide);fill:var(--none,#a7c957)}</style><circle class="a" cx="100" cy="75" r="50"/>',
  ),
  'colours written in every way': svg(
    [
      'red',
      '#0a5',
      '#00aa5588',
      'rgb(10%,40%,80%)',
      'rgba(200,30,60,.5)',
      'hsl(200,60%,40%)',
      'rebeccapurple',
      'currentColor',
    ]
      .map(
        (c, i) =>
          `<rect x="${5 + 48 * (i % 4)}" y="${10 + 70 * Math.floor(i / 4)}" width="44" height="60" fill="${c}" color="#123456"/>`,
      )
      .join(''),
  ),
  'what is handed down': svg(
    '<g fill="#457b9d" stroke="#1d3557" stroke-width="5" stroke-linejoin="round" color="#e63946"><rect x="10" y="10" width="60" height="50"/><g stroke="currentColor"><rect x="90" y="10" width="60" height="50"/><g fill="none" stroke="inherit"><circle cx="60" cy="105" r="30"/></g></g></g>',
  ),
};

const vocabularies: Record<string, string> = {
  'an element prefix': `<s:svg xmlns:s="http://www.w3.org/2000/svg" width="200" height="150"><s:g><s:circle cx="100" cy="75" r="50" fill="#2a9d8f"/></s:g></s:svg>`,
  'other vocabularies': svg(
    '<k:settings xmlns:k="http://k.test/"><rect width="200" height="150"/></k:settings><metadata><rect width="200" height="150"/></metadata><desc>a disc</desc><circle cx="100" cy="75" r="50" fill="#2a9d8f"/>',
  ),
  'entities of its own': `<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY svgns "http://www.w3.org/2000/svg"><!ENTITY shade "fill:#2a9d8f;stroke:#264653">]><svg xmlns="&svgns;" width="200" height="150"><circle cx="100" cy="75" r="50" style="&shade;"/></svg>`,
  'no namespace':
    '<svg width="200" height="150" xmlns="http://www.w3.org/2000/svg"><a href="http://x.test/"><rect x="30" y="30" width="140" height="90" fill="#e9c46a"/></a></svg>',
};

const pictures: Record<string, string> = {
  'embedded PNG': svg(`<image x="20" y="20" width="120" height="90" xlink:href="${embedded.png}"/>`),
  'embedded JPEG': svg(`<image x="20" y="10" width="160" height="120" href="${embedded.jpeg}"/>`),
  'picture fitted': svg(
    `<image x="20" y="10" width="160" height="60" href="${embedded.png}"/><image x="20" y="80" width="160" height="60" preserveAspectRatio="none" href="${embedded.png}"/>`,
  ),
  'picture that fills': svg(
    `<image x="20" y="20" width="150" height="50" preserveAspectRatio="xMidYMin slice" href="${embedded.png}"/>`,
  ),
  'picture turned, let through': svg(
    `<rect y="60" width="200" height="30" fill="#333"/><g transform="rotate(20 100 75)" opacity=".7"><image x="50" y="40" width="100" height="75" href="${embedded.png}"/></g>`,
  ),
  'picture in a clip': svg(
    `<clipPath id="c"><circle cx="80" cy="65" r="40"/></clipPath><image x="20" y="20" width="120" height="90" clip-path="url(#c)" href="${embedded.png}"/>`,
  ),
};

const patterns: Record<string, string> = {
  pattern: svg(
    '<pattern id="p" width="20" height="20" patternUnits="userSpaceOnUse"><circle cx="10" cy="10" r="7" fill="#bc4749"/></pattern><rect x="10" y="10" width="180" height="130" fill="url(#p)"/>',
  ),
  'pattern by the box': svg(
    '<pattern id="p" width=".2" height=".25"><rect width="12" height="12" fill="#386641"/></pattern><circle cx="100" cy="75" r="65" fill="url(#p)"/>',
  ),
  'pattern with a viewBox, turned': svg(
    '<pattern id="p" width="24" height="24" patternUnits="userSpaceOnUse" viewBox="0 0 10 10" patternTransform="rotate(30)"><path d="M0 0L10 10M10 0L0 10" stroke="#386641" stroke-width="2"/></pattern><path d="M20 20H180V130H20Z" fill="url(#p)" stroke="#283618" stroke-width="4"/>',
  ),
  'pattern taken over': svg(
    '<pattern id="a" width="30" height="30" patternUnits="userSpaceOnUse"><rect width="15" height="15" fill="#bc4749"/><rect x="15" y="15" width="15" height="15" fill="#386641"/></pattern><pattern id="b" href="#a" patternTransform="scale(.7)"/><rect x="10" y="10" width="180" height="130" fill="url(#b)"/>',
  ),
};

const mixes: Record<string, string> = {
  'a badge': svg(
    `<defs><linearGradient id="g" x2="0" y2="1">${stops}</linearGradient><clipPath id="c"><circle cx="100" cy="75" r="60"/></clipPath><symbol id="s" viewBox="0 0 200 150"><path d="${star}"/></symbol></defs><g clip-path="url(#c)"><rect width="200" height="150" fill="url(#g)"/><g opacity=".7"><use href="#s" width="200" height="150" fill="#fff" stroke="#264653" stroke-width="6" paint-order="stroke"/></g></g><circle cx="100" cy="75" r="60" fill="none" stroke="#264653" stroke-width="6" stroke-dasharray="12 6"/>`,
  ),
  'a landscape': svg(
    `<style>.sky{fill:url(#k)}.hill{fill:#6a994e;stroke:none}.far{opacity:.6}</style><defs><linearGradient id="k" x2="0" y2="1"><stop offset="0" stop-color="#8ecae6"/><stop offset="1" stop-color="#fefae0"/></linearGradient><radialGradient id="sun"><stop offset="0" stop-color="#ffb703"/><stop offset="1" stop-color="#ffb703" stop-opacity="0"/></radialGradient><g id="tree"><rect x="-3" width="6" height="20" fill="#7f5539"/><circle r="14" fill="#386641"/></g></defs><rect class="sky" width="200" height="150"/><circle cx="150" cy="40" r="35" fill="url(#sun)"/><path class="hill far" d="M0 100C50 60 100 120 200 80V150H0Z"/><path class="hill" d="M0 120C70 90 120 140 200 110V150H0Z"/><use href="#tree" x="50" y="95"/><use href="#tree" transform="translate(110 105) scale(.7)"/>`,
  ),
  'layers of a bench': svg(
    `<g id="ground"><rect width="200" height="150" fill="#faf3dd"/></g><g id="art" transform="translate(10 10) scale(.9)"><g stroke="#333" fill="none" stroke-width="2"><path d="${leaf}"/><g transform="rotate(5)" style="mix-blend-mode:multiply"><path d="${star}" fill="#aed9e0"/></g></g></g>`,
    'width="200mm" height="150mm" viewBox="0 0 200 150"',
  ),
};

/** What is cut, laid over, styled, repeated; and several of these together. */
export const composed = [cutting, laying, styles, vocabularies, pictures, patterns, mixes];
