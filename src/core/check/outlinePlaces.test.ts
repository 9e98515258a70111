import { outlinePlaces } from './outlinePlaces';

/** Brown below a bowed edge, green above: as light as each other. */
const edgeAt = (x: number): number => 60 + 10 * ((x - 150) / 150) ** 2;
const [width, height] = [300, 160];
const data = new Uint8Array(width * height * 3);
for (let y = 0; y < height; y++)
  for (let x = 0; x < width; x++) {
    const share = Math.min(1, Math.max(0, (y + 0.5 - edgeAt(x + 0.5)) / 2 + 0.5));
    [150 * share + 105 * (1 - share), 105 * share + 128 * (1 - share), 60 * share + 105 * (1 - share)].forEach(
      (v, k) => (data[(y * width + x) * 3 + k] = v),
    );
  }
const image = { width, height, channels: 3 as const, data };

test('places lie along the edge beside the hand, and along the hand where there is no edge', () => {
  const way = Array.from({ length: 27 }, (_, i) => ({ x: 20 + 10 * i, y: edgeAt(20 + 10 * i) + (i % 3) - 1 }));
  const places = outlinePlaces(image, way, 30);
  expect(places).toHaveLength(30);
  for (const p of places) expect(Math.abs(p.y - edgeAt(p.x))).toBeLessThan(0.6);
  const plain = { ...image, data: new Uint8Array(data.length).fill(128) };
  for (const p of outlinePlaces(plain, way, 30)) expect(Math.abs(p.y - edgeAt(p.x))).toBeLessThan(1.5);
  expect(() => outlinePlaces(image, [way[0]], 30)).toThrow(RangeError);
});
