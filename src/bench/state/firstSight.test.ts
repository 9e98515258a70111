import { TestStorage } from '../test/storage';
import { showSight } from './firstSight';
import { LAST_SEEN, preferencesKey, SESSION } from './localKeys';
import { fitting } from './view';

const page = { width: 300, height: 200 };
const felt = { width: 800, height: 650 };

class FakeImage {
  src = '';
  style = {};
}

/** What is put into what covers the window, and where the page is said to be painted. */
function shown(stored: Record<string, string>) {
  const localStorage = new TestStorage() as unknown as Storage;
  for (const [key, value] of Object.entries(stored)) localStorage.setItem(key, value);
  const paper = {
    style: {
      width: `${page.width}px`,
      height: `${page.height}px`,
      transform: '',
      setProperty: (name: string, value: string) => void (paper.px = name === '--px' ? value : ''),
    },
    px: '',
  };
  const sides: Record<string, string> = {};
  const around = { style: sides, clientWidth: felt.width, clientHeight: felt.height };
  const pictures: FakeImage[] = [];
  const seen = { hasChildNodes: () => false, replaceChildren: (...list: FakeImage[]) => void pictures.push(...list) };
  const cover = {
    querySelector: (what: string) => ({ '.seen': seen, '.felt': around, '.paper': paper })[what] ?? null,
  };
  Object.assign(globalThis, { localStorage, innerWidth: 1280, innerHeight: 800, Image: FakeImage });
  const at = showSight(cover as never, 'd');
  return { transform: paper.style.transform, px: paper.px, sides, pictures, at };
}

const laid = ({ x, y, scale }: { x: number; y: number; scale: number }): string =>
  `translate(${x}px, ${y}px) scale(${scale})`;
const whole = fitting({ minX: 0, minY: 0, maxX: page.width, maxY: page.height }, felt);

test('the paper lies where the page will be painted: fitted into its window, or as it was left', () => {
  expect(shown({})).toEqual({
    transform: laid(whole),
    px: `${1 / whole.scale}px`,
    sides: {},
    pictures: [],
    at: { view: whole, window: felt },
  });
  const view = { x: -40, y: 12.5, scale: 0.5 };
  expect(shown({ [`${SESSION}d`]: JSON.stringify({ view }) })).toMatchObject({
    transform: laid(view),
    px: '2px',
    at: { view, window: felt },
  });
  expect(shown({ [`${SESSION}other`]: JSON.stringify({ view }) }).transform).toBe(laid(whole));
});

test('panels that are folded away leave it their room; nonsense leaves it whole', () => {
  const folded = JSON.stringify({ state: { folded: { left: true, right: false } }, version: 1 });
  expect(shown({ [preferencesKey]: folded }).sides).toEqual({ left: '0px' });
  for (const nonsense of ['null', '{', '7', '"x"', '[]', '{"state":null,"view":null}'])
    expect(shown({ [preferencesKey]: nonsense, [`${SESSION}d`]: nonsense, [`${LAST_SEEN}d`]: nonsense })).toMatchObject(
      {
        transform: laid(whole),
        pictures: [],
      },
    );
});

test('what was seen last is put before it', () => {
  const place = { left: 1, top: 2, width: 30, height: 40, window: { width: 1280, height: 800 } };
  const src = 'data:image/webp;base64,AAAA';
  expect(shown({ [`${LAST_SEEN}d`]: JSON.stringify({ at: 1, place, src }) }).pictures).toMatchObject([
    { src, style: { left: '1px', top: '2px', width: '30px', height: '40px' } },
  ]);
});
