import { allLines, linesOf } from '../../drawing/items';
import { drawingSchema, readSvg, writeSvg } from '../../index';
import { seeded } from '../../seeded';
import { damagedSvg } from '../../test/svg/damaged';

describe('texts that are meant to take for ever', () => {
  // Each would take minutes if it took time by the square of its length.
  const svg = (content: string, attributes = ''): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${content}</svg>`;
  const line = '<path d="M0 0L9 9" stroke="#112233"/>';
  const long = 1_000_000;

  it.each([
    ['digits in a length', svg(line, `width="${'1'.repeat(long)}x"`)],
    ['spaces in a length', svg(line, `width="1${' '.repeat(long)}!"`)],
    ['digits in a width', svg(`<path d="M0 0L9 9" stroke="#112233" stroke-width="${'1'.repeat(long)}x"/>`)],
    [
      'digits in a colour',
      svg(`${line}<path d="M0 0L9 9" stroke="rgb(${'1'.repeat(long)}" fill="hsl(${'1'.repeat(long)}"/>`),
    ],
    ['a style sheet without a brace', svg(`<style>${'a '.repeat(long)}</style>${line}`)],
    ['a style sheet of opened comments', svg(`<style>${'/*'.repeat(long)}</style>${line}`)],
    ['a style sheet of opened braces', svg(`<style>${'a{'.repeat(long)}</style>${line}`)],
    ['a transform of spaces', svg(`<g transform="${' '.repeat(long)}x">${line}</g>`)],
    ['a transform of a name', svg(`<g transform="${'matrix '.repeat(long / 7)}">${line}</g>`)],
    ['a transform of many', svg(`<g transform="${'translate(0,0)'.repeat(long / 14)}">${line.repeat(3000)}</g>`)],
    ['a transform that never ends', svg(`<g transform="rotate(${'1 '.repeat(long / 2)}">${line}</g>`)],
    [
      'what draws itself ten times, again and again',
      svg(
        `${line}<defs><g id="u0">${line}</g>${Array.from({ length: 24 }, (_, i) => `<g id="u${i + 1}">${`<use href="#u${i}"/>`.repeat(10)}</g>`).join('')}</defs><use href="#u24"/>`,
      ),
    ],
    [
      'patterns in patterns',
      svg(
        `${line}<pattern id="p0" width=".1" height=".1">${line}</pattern>${Array.from({ length: 20 }, (_, i) => `<pattern id="p${i + 1}" width=".1" height=".1"><rect width="50" height="50" fill="url(#p${i})"/></pattern>`).join('')}<rect width="200" height="150" fill="url(#p20)"/>`,
      ),
    ],
    [
      'a clip of very many parts, used very often',
      svg(
        `${line}<clipPath id="c">${'<rect width="50" height="50" x="3"/>'.repeat(20_000)}</clipPath>${'<rect width="99" height="99" clip-path="url(#c)"/>'.repeat(500)}`,
      ),
    ],
    [
      'very many selectors for very many elements',
      svg(
        `<style>${Array.from({ length: 20_000 }, (_, i) => `*[a${i}]{fill:red}`).join('')}</style>${line.repeat(20_000)}`,
      ),
    ],
    ['selectors in selectors', svg(`<style>${':not('.repeat(3000)}a${')'.repeat(3000)}{fill:red}</style>${line}`)],
    [
      'variables that double each other',
      svg(
        `<style>svg{${Array.from({ length: 2000 }, (_, i) => `--a${i + 1}:var(--a${i})var(--a${i})`).join(';')}}</style>${line}${'<path fill="var(--a2000)" d="M0 0L9 9"/>'.repeat(5000)}`,
      ),
    ],
    ['a path of very many parts that lie over each other', svg(`${line}<path d="M0 0${'h9v9z'.repeat(long / 5)}"/>`)],
    ['a dash finer than can be seen', svg(`${line}<path d="M0 0h9000" stroke="red" stroke-dasharray=".0001"/>`)],
    ['a rule of a great many declarations', svg(`<style>path{${'a:b;'.repeat(49_000)}}</style>${line.repeat(20_000)}`)],
  ])('%s', (_, text) => {
    const [first] = linesOf(readSvg(text).drawing.sheets[0]);
    expect(first.style.stroke).toBe('#112233');
  });

  it.each([
    ['style opened and never closed', svg('<style>'.repeat(400_000))],
    ['style opened with no end', `<svg>${'<style '.repeat(200_000)}`],
    ['groups in groups', svg('<g>'.repeat(400_000))],
    [
      'entities that grow',
      `<!DOCTYPE svg [${Array.from({ length: 90 }, (_, i) => `<!ENTITY e${i} "${'x'.repeat(900)}">`).join('')}]>${svg(`<title>${'&e1;'.repeat(200_000)}</title>${line}`)}`,
    ],
  ])('%s is refused', (_, text) => {
    expect(() => readSvg(text)).toThrow(RangeError);
  });
});

test('damaged texts give a drawing that can be kept, or a refusal; what is written of it can be read', () => {
  let read = 0;
  for (let seed = 0; seed < 1_200; seed++) {
    let drawing;
    try {
      ({ drawing } = readSvg(damagedSvg(seeded(seed))));
    } catch (error) {
      if (!(error instanceof RangeError)) throw new Error(`text ${seed}`, { cause: error });
      continue;
    }
    read++;
    expect({ seed, error: drawingSchema.safeParse(drawing).error }).toEqual({ seed, error: undefined });
    readSvg(writeSvg(drawing));
  }
  expect(read).toBeGreaterThan(300);
});

describe('more than a line holds', () => {
  const svg = (content: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="900">${content}</svg>`;
  const nodesOf = (text: string) => {
    const { drawing, dropped } = readSvg(text);
    expect(drawingSchema.safeParse(drawing).error).toBeUndefined();
    const runs = allLines(drawing).flatMap((l) => l.runs);
    return {
      nodes: runs.reduce((n, r) => n + r.nodes.length, 0),
      runs: runs.length,
      dropped: dropped.map((d) => d.what),
    };
  };

  it('a stroke of 200,001 nodes is cut into several: none is lost', () => {
    const { nodes, runs, dropped } = nodesOf(
      svg(`<path fill="none" stroke="red" d="M0 0${'l1 1 1-1'.repeat(100_000)}"/>`),
    );
    // Pieces share the node that they meet in.
    expect(nodes - (runs - 1)).toBe(200_001);
    expect(dropped).toEqual([]);
  });

  it('3,000 runs are kept, stroked or filled, where they can be told apart', () => {
    const apart = Array.from({ length: 3_000 }, (_, i) => `M${(i % 60) * 15} ${Math.floor(i / 60) * 15}h9v9z`).join('');
    expect(nodesOf(svg(`<path fill="none" stroke="red" d="${apart}"/>`))).toMatchObject({ runs: 3_000, dropped: [] });
    expect(nodesOf(svg(`<path d="${apart}"/>`))).toMatchObject({ runs: 3_000, dropped: [] });
  });

  it('what cannot be kept whole is left out, and that is said', () => {
    const together = 'M0 0h9v9z'.repeat(3_000);
    expect(nodesOf(svg(`<path d="${together}"/>`)).dropped).toEqual(['paths of very many parts']);
    expect(nodesOf(svg(`<path d="M0 0${'l1 1-1 2'.repeat(30_000)}"/>`)).dropped).toEqual(['very long filled paths']);
    const far = nodesOf(svg('<path stroke="red" d="M0 0L1e8 0"/><path stroke="red" d="M0 0L5 5"/>'));
    expect(far).toMatchObject({ runs: 1, dropped: ['what lies too far off'] });
  });
});
