import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies, type Body } from '../bodies/body';
import { frameOf } from '../camera/frame';
import { projectPoint } from '../convert/project';
import { distance } from '../math/vec3';
import { drawOrder, mostConflicts, type SortKey } from './drawOrder';
import { compute } from '../compute/compute';
import { codecOf } from '../conventions/codec';
import { defaultConventions } from '../conventions/conventions';
import { transformPoint } from '../math/mat4';
import { space } from '../quantities/world';
import { readBody } from '../request/readBody';
import { writeBody } from '../request/write';
import { conventions } from '../testing/arbitraries';
import { rotations, scales } from '../testing/bodies';
import { runs } from '../testing/seed';

const made = frameOf(
  {
    position: [0, 0, 0],
    orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
    projection: { kind: 'perspective', near: 0.1, far: 100, lens: { verticalFov: 1 } },
  },
  { x: 0, y: 0, width: 800, height: 600 },
);
if (!made.ok) throw new Error('the camera of the test');
const frame = made.value;
const keys: readonly SortKey[] = ['ahead', 'distance', 'worldUp', 'screenHeight'];
const bodiesAt = (places: readonly (readonly [number, number, number])[]) => {
  const bodies = places.map((position, i): Body => ({ id: `b${i}`, shape: { kind: 'point' }, position, rotation: [0, 0, 0, 1], scale: [1, 1, 1], parent: null, castsShadow: true })); // prettier-ignore
  const placed = placeBodies(bodies);
  if (!placed.ok) throw new Error(placed.problems[0]!.message);
  return placed.placed;
};
// Coarse, so that ties are usual.
const place = fc.tuple(
  fc.integer({ min: -3, max: 3 }),
  fc.integer({ min: -3, max: 3 }),
  fc.integer({ min: -6, max: 2 }),
);

describe('the order of drawing', () => {
  it('counts and lists the pairs that looking at all of them finds', () => {
    fc.assert(
      fc.property(fc.array(place, { maxLength: 60 }), fc.constantFrom(...keys), (places, key) => {
        const placed = bodiesAt(places);
        const { order, conflicts, conflictCount } = drawOrder(frame, placed, key);
        expect([...order].sort()).toEqual(placed.map(({ body }) => body.id).sort());
        const of = (id: string) => places[Number(id.slice(1))]!;
        const seen = (id: string) => key !== 'screenHeight' || -of(id)[2] > 0;
        const value = (id: string) => {
          const p = of(id);
          if (key === 'worldUp') return p[1];
          if (key === 'distance') return distance(p, frame.eye);
          const { picture } = projectPoint(frame, p);
          return key === 'screenHeight' && picture.ok ? picture.value.upward : -p[2];
        };
        const all = order.flatMap((far, i) =>
          order.slice(i + 1).flatMap((near) => {
            const [a, b] = [of(far), of(near)];
            if (seen(far) !== seen(near)) return [[far, near]];
            return value(far) !== value(near) && -a[2] < -b[2] ? [[far, near]] : [];
          }),
        );
        expect(conflictCount).toBe(all.length);
        expect(conflicts).toEqual(all.slice(0, mostConflicts));
        for (let i = 1; i < order.length; i++) {
          const [a, b] = [order[i - 1]!, order[i]!];
          if (seen(a) === seen(b)) expect(value(a)).toBeGreaterThanOrEqual(value(b));
          else expect(seen(a)).toBe(false);
        }
      }),
      { numRuns: runs(200) },
    );
  });

  it('sorts bodies by their feet, wherever their origins are', () => {
    const foot = fc.tuple(place, place, rotations, scales);
    fc.assert(
      fc.property(fc.array(foot, { maxLength: 20 }), fc.constantFrom(...keys), (list, key) => {
        const bodies = list.map(([position, own, rotation, scale], i): Body => ({ id: `b${i}`, shape: { kind: 'point' }, position, rotation, scale, parent: null, castsShadow: true, foot: own })); // prettier-ignore
        const placed = placeBodies(bodies);
        if (!placed.ok) throw new Error(placed.problems[0]!.message);
        const feet = placed.placed.map(({ toWorld }, i) => transformPoint(toWorld, list[i]![1]));
        expect(drawOrder(frame, placed.placed, key)).toEqual(drawOrder(frame, bodiesAt(feet), key));
      }),
      { numRuns: runs(100) },
    );
  });

  it('reads and writes feet as requests have them: in the axes of the conventions', () => {
    const bodies = [
      { id: 'tree', shape: { kind: 'quad', size: [32, 48] }, position: [100, 50], foot: [0, 24] },
      { id: 'hen', shape: { kind: 'quad', size: [16, 16] }, position: [100, 60], foot: [0, 8] },
    ];
    const request = {
      astrolabe: 1,
      conventions: { ...defaultConventions, world: { right: '+x', up: '-y', forward: '-z' } },
      viewport: { x: 0, y: 0, width: 320, height: 180 },
      camera: { kind: '2d', focus: [0, 0], anchor: [0, 0], zoom: 1, rotation: 0, snap: 'none' },
      bodies,
      queries: [{ id: 'order', op: 'drawOrder', key: 'screenHeight' }],
    };
    const orderOf = (given: object) => {
      const computed = compute(given);
      return computed.ok && computed.response.results[0];
    };
    expect(orderOf(request)).toMatchObject({ order: ['hen', 'tree'] });
    const withoutFeet = { ...request, bodies: bodies.map(({ id, shape, position }) => ({ id, shape, position })) };
    expect(orderOf(withoutFeet)).toMatchObject({ order: ['tree', 'hen'] });
    expect(compute({ ...request, bodies: [{ ...bodies[0], foot: [0, 24, 0] }] })).toMatchObject({
      ok: false,
      problem: { errors: [{ path: 'bodies[0].foot' }] },
    });
  });

  it('gives back the foot of a body in any conventions', () => {
    fc.assert(
      fc.property(conventions, place, (own, foot) => {
        const context = { codec: codecOf(own), world: space };
        const body: Body = { id: 'b', shape: { kind: 'point' }, position: [1, 2, 3], rotation: [0, 0, 0, 1], scale: [1, 1, 1], parent: null, castsShadow: true, foot }; // prettier-ignore
        const read = readBody(writeBody(body, context), 0, context);
        expect(read).toMatchObject({ ok: true, value: { foot } });
      }),
      { numRuns: runs(50) },
    );
  });

  it('takes keys that differ by rounding alone as equal, in whatever way they came about', () => {
    const heights = [0.1 + 0.2, 0.3, 0.15 * 2, 3 * 0.1];
    expect(new Set(heights).size).toBeGreaterThan(1);
    const places = heights.map((y, i) => [0, y, -10 - (i % 2)] as const);
    const { conflictCount, order } = drawOrder(frame, bodiesAt(places), 'worldUp');
    expect(conflictCount).toBe(0);
    expect(order).toEqual(['b0', 'b1', 'b2', 'b3']);
  });

  it('lists a thousand pairs of many, and says how many there are', () => {
    const placed = bodiesAt(Array.from({ length: 300 }, (_, i) => [0, i, i - 400] as const));
    const { conflicts, conflictCount } = drawOrder(frame, placed, 'worldUp');
    expect(conflicts).toHaveLength(1000);
    expect(conflictCount).toBe((300 * 299) / 2);
  });
});
