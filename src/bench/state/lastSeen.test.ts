import { forgetLastSeen, keepLastSeen, putLastSeen } from './lastSeen';
import { TestStorage } from '../test/storage';

const place = { left: 1, top: 2, width: 30, height: 40, window: { width: 800, height: 600 } };
const src = 'data:image/webp;base64,AAAA';

type Picture = { src: string; style: Record<string, string> };
/** What covers the window, and the pictures that were put into it. */
class Cover {
  readonly pictures: Picture[] = [];
  replaceChildren(...pictures: Picture[]): void {
    this.pictures.push(...pictures);
  }
}

/** The picture of a drawing's page that is put before it. */
function lastSeen(id: string): Picture | null {
  const cover = new Cover();
  putLastSeen(cover as never, id);
  return cover.pictures[0] ?? null;
}

class FakeImage {
  src = '';
  style = {};
}

beforeEach(() => {
  Object.assign(globalThis, { localStorage: new TestStorage(), innerWidth: 800, innerHeight: 600, Image: FakeImage });
  let now = 0;
  jest.spyOn(Date, 'now').mockImplementation(() => ++now);
});
afterEach(() => jest.restoreAllMocks());

test('a page is seen again as it was, in a window as large', () => {
  keepLastSeen('a', src, place);
  expect(lastSeen('a')).toMatchObject({ src, style: { left: '1px', top: '2px', width: '30px', height: '40px' } });
  expect(lastSeen('b')).toBeNull();
  Object.assign(globalThis, { innerWidth: 700 });
  expect(lastSeen('a')).toBeNull();
});

test('a few are kept, those that were seen last; none that is too large, nor anything that is no picture', () => {
  for (let i = 0; i < 15; i++) keepLastSeen(`d${i}`, src, place);
  keepLastSeen('d3', src, place);
  const seen = Array.from({ length: 15 }, (_, i) => i).filter((i) => lastSeen(`d${i}`));
  expect(seen).toEqual([3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14]);
  expect(keepLastSeen('large', `${src}${'A'.repeat(200_000)}`, place)).toBe(false);
  expect(lastSeen('large')).toBeNull();
  keepLastSeen('page', 'https://elsewhere.example/x.png', place);
  expect(lastSeen('page')).toBeNull();
  localStorage.setItem('yellow-quill:last-seen:torn', '{"at":');
  expect(lastSeen('torn')).toBeNull();
  // It keeps nobody from being kept, and is the first to go.
  for (let i = 0; i < 12; i++) keepLastSeen(`e${i}`, src, place);
  expect(lastSeen('e0')).not.toBeNull();
  expect(localStorage.getItem('yellow-quill:last-seen:torn')).toBeNull();
});

test('some are forgotten, or all', () => {
  for (const id of ['a', 'b', 'c']) keepLastSeen(id, src, place);
  localStorage.setItem('another', 'thing');
  forgetLastSeen(['b']);
  expect(['a', 'b', 'c'].map((id) => lastSeen(id) !== null)).toEqual([true, false, true]);
  forgetLastSeen();
  expect([lastSeen('a'), localStorage.getItem('another')]).toEqual([null, 'thing']);
});
