import { settle } from '../src/core';
import { seeded } from '../src/core/seeded';
import { disturbed } from '../src/core/test/disturbed';
import { measureFollowEdges } from './measureFollowEdges';
import { canScene, nearShare, potScene, seenIn } from './scenes';

test.each([
  ['the watering can', canScene],
  ['the clay pot', potScene],
])('outlines of %s come to lie on what is seen of them, none further than before', async (_, make) => {
  const scene = await make();
  let [near, length] = [0, 0];
  for (const thing of scene.things) {
    const isSeen = seenIn(scene, thing);
    const start = { cubics: disturbed(thing.cubics, thing.closed, 6, seeded(1)), closed: thing.closed };
    const settled = settle(start, scene.image, { reach: 10, target: 'edge' });
    const [before, after] = [start, settled].map((r) => nearShare(r.cubics, thing, isSeen, 1));
    expect(after.mean).toBeLessThan(before.mean);
    near += after.near * after.places;
    length += after.places;
  }
  expect(near / length).toBeGreaterThan(0.95);
});

test.each([
  ['the watering can', canScene],
  ['the clay pot', potScene],
])('a pen that strays is led along the edges of %s: few curves, none that cross', async (_, make) => {
  const scene = await make();
  const f = measureFollowEdges(scene, 1);
  expect(f.near).toBeGreaterThan(0.965);
  expect(f.segments).toBeLessThan(1.5 * f.trueSegments);
  expect(f).toMatchObject({ crossings: 0, lost: 0 });
  expect(f.kinks).toBe(0);
});
