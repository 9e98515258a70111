import fc from 'fast-check';
import type { Node } from '../drawing/schema';

/** Any node, with places and handles of such numbers; each is as plain an object as one that was read. */
export function anyNode(numbers: fc.Arbitrary<number>): fc.Arbitrary<Node> {
  const offset = fc.record({ x: numbers, y: numbers }, { noNullPrototype: true });
  return fc
    .record({
      point: offset,
      in: fc.option(offset),
      out: fc.option(offset),
      kind: fc.constantFrom<Node['kind']>('corner', 'smooth', 'even', 'flowing'),
      radius: fc.option(fc.double({ min: 0, max: 100, noNaN: true }), { nil: undefined }),
    })
    .map(({ radius, ...rest }) => (radius === undefined ? rest : { ...rest, radius }));
}
