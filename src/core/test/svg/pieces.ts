/** What the SVG files of the tests are put together of. */
export const svg = (content: string, root = 'width="200" height="150"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${root}>${content}</svg>`;

export const star = 'M100 15L120 75L185 75L132 112L152 140L100 118L48 140L68 112L15 75L80 75Z';
export const leaf = 'M20 120C40 20 120 10 180 30C170 90 120 140 20 120Z';
export const stops =
  '<stop offset="0" stop-color="#d1495b"/><stop offset="0.5" stop-color="#edae49"/><stop offset="1" stop-color="#00798c"/>';
