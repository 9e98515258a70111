import fc from 'fast-check';
import { applyChange, inverseOf } from '../change/apply';
import { linesOf } from '../drawing/items';
import { mapPoint } from '../geometry/matrix';
import { wanderingDrawing } from '../test/drawings';
import { mappedCopies, mirrorAt, turnsAbout } from './copies';

const d = wanderingDrawing(8, 3, 11);
let n = 0;
const fresh = (): string => `new${n++}`;

test('a mirrored copy lies where the original lies in the mirror, and mirrored again where that lies', () => {
  fc.assert(
    fc.property(fc.integer({ min: -500, max: 900 }), fc.constantFrom('across' as const, 'down' as const), (at, way) => {
      const m = mirrorAt({ x: at, y: at }, way);
      const { edit, ids } = mappedCopies(d, ['l0', 'l4'], [m], fresh, 'Mirror');
      const change = { id: 'c', ...edit };
      const after = applyChange(d, change);
      expect(applyChange(after, inverseOf(change, 'u', 'Undo'))).toEqual(d);
      const lines = linesOf(after.sheets[0]);
      expect(ids).toHaveLength(2);
      ids.forEach((id, i) => {
        const [was, now] = [['l0', 'l4'][i], id].map((x) => lines.find((l) => l.id === x)!);
        was.runs[0].nodes.forEach((node, k) => {
          const back = mapPoint(m, now.runs[0].nodes[k].point);
          expect(back.x).toBeCloseTo(node.point.x, 9);
          expect(back.y).toBeCloseTo(node.point.y, 9);
        });
      });
    }),
  );
});

test('turned copies lie evenly round a point, each as far from it as the original', () => {
  const at = { x: 200, y: 100 };
  const { edit, ids } = mappedCopies(d, ['l0'], turnsAbout(at, 6), fresh, 'Turn');
  const lines = linesOf(applyChange(d, { id: 'c', ...edit }).sheets[0]);
  expect(ids).toHaveLength(5);
  const spots = ['l0', ...ids].map((id) => lines.find((l) => l.id === id)!.runs[0].nodes[0].point);
  const angles = spots.map((p) => Math.atan2(p.y - at.y, p.x - at.x));
  spots.forEach((p, i) => {
    expect(Math.hypot(p.x - at.x, p.y - at.y)).toBeCloseTo(Math.hypot(spots[0].x - at.x, spots[0].y - at.y), 9);
    const turn = angles[i] - angles[0] - (i * Math.PI) / 3;
    expect(Math.abs(Math.sin(turn / 2))).toBeLessThan(1e-9);
  });
  expect(turnsAbout(at, 1)).toEqual([]);
});
