import type { Cubic } from '../geometry/cubic';
import { add, mix, point, scale, subtract, type Point } from '../geometry/point';
import { seeded } from '@/core/seeded';

/** Seeded cubics for tests: ordinary ones and every degenerate family that hand-drawn lines bring. */
export function randomCubics(seed: number, count: number): { family: string; cubic: Cubic }[] {
  const random = seeded(seed);
  const anywhere = (): Point => point(random() * 1000, random() * 1000);
  const four = (): Cubic => [anywhere(), anywhere(), anywhere(), anywhere()];
  const families: Record<string, () => Cubic> = {
    ordinary: four,
    gentle: () => {
      const [a, d] = [anywhere(), anywhere()];
      const off = () => scale(subtract(anywhere(), point(500, 500)), 0.2);
      return [a, add(mix(a, d, 1 / 3), off()), add(mix(a, d, 2 / 3), off()), d];
    },
    'no handles': () => {
      const [a, d] = [anywhere(), anywhere()];
      return [a, a, d, d];
    },
    'one handle': () => {
      const [a, b, d] = [anywhere(), anywhere(), anywhere()];
      return [a, a, b, d];
    },
    'straight, doubling back': () => {
      const [a, d] = [anywhere(), anywhere()];
      const on = () => mix(a, d, random() * 3 - 1);
      return [a, on(), on(), d];
    },
    cusp: () => {
      // The derivative at 1/2 is 3/4 (d + c - b - a): it vanishes for this c.
      const [a, b, d] = [anywhere(), anywhere(), anywhere()];
      return [a, b, subtract(add(a, b), d), d];
    },
    loop: () => {
      const [a, d] = [anywhere(), mix(anywhere(), point(500, 500), 0.5)];
      const across = subtract(d, a);
      return [a, add(d, scale(across, 1 + random())), subtract(a, add(scale(across, 1 + random()), point(0, 300))), d];
    },
    'closed on itself': () => {
      const a = anywhere();
      return [a, anywhere(), anywhere(), a];
    },
    tiny: () => four().map((p) => add(point(400, 400), scale(p, 1e-5))) as Cubic,
    'handles on one point': () => {
      const [a, b, d] = [anywhere(), anywhere(), anywhere()];
      return [a, b, b, d];
    },
    'a single point': () => {
      const a = anywhere();
      return [a, a, a, a];
    },
  };
  const names = Object.keys(families);
  return Array.from({ length: count }, (_, i) => {
    const family = i % 2 === 0 ? 'ordinary' : names[Math.floor(i / 2) % names.length];
    return { family, cubic: families[family]() };
  });
}
