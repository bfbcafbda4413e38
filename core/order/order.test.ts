import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { depthFormats, depthResolution, depthStep } from '../camera/depthPrecision';
import { frameOf, reframed, viewRufPlanes, type Camera, type CameraFrame } from '../camera/frame';
import { resolveProjection, type DepthRange, type ResolvedProjection } from '../camera/projection';
import { pixelDerivative, pixelVelocity } from '../convert/derivative';
import { viewRufToWorld, pictureToViewRuf, projectPoint, worldToPixel, worldToViewRuf } from '../convert/project';
import { transform, transformPoint } from '../math/mat4';
import { answer, noAnswer } from '../reasons';
import { add, cross, distance, dot, length, normalize, scale, sub, type Vec3 } from '../math/vec3';
import { aheadAt, frames, picturePositions, shares, vectors } from '../testing/arbitraries';
import {
  angularError,
  angularOfPicture,
  angularSpan,
  angularToBearing,
  bearingToAngular,
  bearingToParts,
  partsToBearing,
} from './angular';
import { clipPolygon, unclippedPositions } from './clip';
import { planarShadow, shadowOf, type Light } from './shadow';
import { mirrorsPicture, windingOf } from './winding';
import { runs } from '../testing/seed';

const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const made = (camera: Partial<Camera>, size = { width: 200, height: 100 }): CameraFrame => {
  const frame = frameOf(
    {
      position: [0, 0, 0],
      orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
      // 90° high without a rounded tangent.
      projection: { kind: 'frustum', near: 1, far: 100, left: -2, right: 2, bottom: -1, top: 1 },
      ...camera,
    },
    { x: 0, y: 0, ...size },
  );
  if (!frame.ok) throw new Error(frame.problems[0]!.message);
  return frame.value;
};
/**
 * Triangles and quads in a plane of the world, about a place in or near the frustum and often
 * through the eye's plane.
 */
const scenes = fc
  .tuple(frames, picturePositions, shares, vectors(1), vectors(1), real(0.1, 60), fc.boolean())
  .map(([frame, [x, y], share, a, b, size, quad]) => {
    const at = viewRufToWorld(frame, pictureToViewRuf(frame, x, y, Math.min(aheadAt(frame, share), frame.near + 100)));
    const [p, q] = [scale(a, size), scale(b, size)];
    return { frame, polygon: quad ? [at, add(at, p), add(add(at, p), q), add(at, q)] : [at, add(at, p), add(at, q)] };
  })
  .filter(({ polygon: [a, b, c] }) => length(cross(sub(b!, a!), sub(c!, a!))) > 1e-2);

describe('clipping', () => {
  it('leaves what lies inside every plane, on the given plane, wound as before; and what it took away was outside', () => {
    let cut = 0;
    fc.assert(
      fc.property(scenes, shares, shares, ({ frame, polygon }, s, t) => {
        const corners = clipPolygon(frame, polygon);
        const size = Math.max(1, ...corners.flatMap(({ viewRuf }) => viewRuf.map(Math.abs)));
        for (const { normal, offset } of viewRufPlanes(frame))
          for (const { viewRuf } of corners) expect(dot(normal, viewRuf) + offset).toBeGreaterThan(-1e-9 * size);
        const [a, b, c] = polygon as [Vec3, Vec3, Vec3];
        const normal = normalize(cross(sub(b, a), sub(c, a)))!;
        const world = corners.map(({ viewRuf }) => viewRufToWorld(frame, viewRuf));
        for (const p of world) expect(Math.abs(dot(normal, sub(p, a)))).toBeLessThan(1e-9 * (1 + size));
        world.slice(2).forEach((p, i) => {
          const turn = cross(sub(world[i + 1]!, world[0]!), sub(p, world[0]!));
          expect(dot(turn, normal)).toBeGreaterThan(-1e-7 * (1 + size * size));
        });
        // A point of the polygon is in what is left if and only if it is inside (but for a hair
        // about its border).
        const point = add(a, add(scale(sub(b, a), s), scale(sub(polygon.at(-1)!, a), t * (1 - s))));
        const inside = projectPoint(frame, point).outside.length === 0;
        const nearest = world.map((p, i) => {
          const q = world[(i + 1) % world.length]!;
          const edge = length(sub(q, p));
          return edge < 1e-6 * size ? 0 : dot(cross(normal, sub(q, p)), sub(point, p)) / edge;
        });
        // What only touches a plane leaves the corner or the edge that touches.
        const depth = world.length === 0 ? -Infinity : world.length < 3 ? 0 : Math.min(...nearest);
        const { viewRuf: at } = projectPoint(frame, point);
        const clear = viewRufPlanes(frame).every((one) => Math.abs(dot(one.normal, at) + one.offset) > 1e-8 * size);
        if (clear && depth > 1e-6 * size) expect(inside).toBe(true);
        if (clear && depth < -1e-6 * size) expect(inside).toBe(false);
        if (corners.length > 0 && corners.some(({ along }) => along > 0)) cut++;
      }),
      { numRuns: runs(500) },
    );
    expect(cut).toBeGreaterThan(50);
  });

  it('says where a corner made by near lies on the edge that was cut', () => {
    const frame = made({});
    const corners = clipPolygon(frame, [[0, 0, -4], [2, 0, -4], [2, 0, 8]], ['near']); // prettier-ignore
    // Edge 1 from ahead 4 to −8 meets near, 1 ahead, a quarter of its way; edge 2 from −8 back to 4
    // three quarters of its way.
    expect(corners).toEqual([
      { viewRuf: [0, 0, 4], edge: 0, along: 0 },
      { viewRuf: [2, 0, 4], edge: 1, along: 0 },
      { viewRuf: [2, 0, 1], edge: 1, along: 0.25 },
      { viewRuf: [0.5, 0, 1], edge: 2, along: 0.75 },
    ]);
  });

  it('without it, a corner behind the eye would come out on the other side', () => {
    const [ahead, behind, on] = unclippedPositions(made({}), [[2, 1, -2], [2, 1, 2], [2, 1, 0]]); // prettier-ignore
    expect(ahead).toEqual({ position: [0.5, 0.5], ghost: false });
    expect(behind).toEqual({ position: [-0.5, -0.5], ghost: true });
    expect(on).toEqual({ position: null, ghost: false });
  });
});

describe('winding', () => {
  it('is counter-clockwise on the screen exactly for what faces the eye, and turned by mirrored extents', () => {
    let seen = 0;
    fc.assert(
      fc.property(scenes, ({ frame, polygon }) => {
        const { facing, area } = windingOf(frame, polygon);
        // Edge-on, rounding decides.
        if (!area.ok || facing === 'edgeOn' || Math.abs(area.value) < 1e-2) return;
        seen++;
        expect(area.value > 0).toBe((facing === 'front') !== mirrorsPicture(frame));
        const turned = windingOf(frame, [...polygon].reverse());
        expect(turned.facing).toBe(facing === 'front' ? 'back' : 'front');
        expect(turned.area.ok && Math.sign(turned.area.value)).toBe(-Math.sign(area.value));
      }),
      { numRuns: runs(300) },
    );
    expect(seen).toBeGreaterThan(20);
    const mirrored = made({
      projection: { kind: 'frustum', near: 1, far: 9, left: 1, right: -1, bottom: -1, top: 1 },
    });
    const triangle: Vec3[] = [[0, 0, -2], [1, 0, -2], [0, 1, -2]]; // prettier-ignore
    expect(windingOf(made({}), triangle)).toMatchObject({ facing: 'front', area: { value: 312.5 } });
    expect(windingOf(mirrored, triangle)).toMatchObject({ facing: 'front', area: { value: -625 } });
  });

  it('faces the eye or not wherever it lies, and its area on the screen is that of what near leaves', () => {
    const corners = fc.tuple(vectors(30), vectors(30), vectors(30));
    let [fronts, backs, clipped, gone] = [0, 0, 0, 0];
    fc.assert(
      fc.property(frames, corners, (frame, triangle) => {
        const { facing, area } = windingOf(frame, triangle);
        // The other way round it faces the other way, and mirrored extents leave that alone.
        const turned = windingOf(frame, [triangle[0], triangle[2], triangle[1]]);
        const other = { front: 'back', back: 'front', edgeOn: 'edgeOn' } as const;
        expect(turned.facing).toBe(other[facing]);
        const { left, right, bottom, top } = frame.extents;
        const mirrored = reframed(frame, { left: right, right: left, bottom, top }, frame.viewport)!;
        expect(windingOf(mirrored, triangle).facing).toBe(facing);
        if (facing === 'front') fronts++;
        if (facing === 'back') backs++;
        const ahead = triangle.map((p) => worldToViewRuf(frame, p)[2]);
        if (!area.ok) {
          gone++;
          expect(Math.max(...ahead)).toBeLessThan(frame.near);
          return;
        }
        if (Math.min(...ahead) < frame.near) clipped++;
        const tolerance = 1e-9 * Math.abs(area.value) + 1e-9;
        const back = windingOf(mirrored, triangle).area;
        expect(Math.abs((back.ok ? back.value : NaN) + area.value)).toBeLessThan(tolerance);
      }),
      { numRuns: runs(400) },
    );
    for (const count of [fronts, backs, clipped, gone]) expect(count).toBeGreaterThan(3);
  });

  it('is measured in pixels, and edge-on when the eye is in its plane or it has no inside', () => {
    // 90° high, 100 px high, 2 wide: at 1 ahead the picture is 4 × 2 units, 50 px each.
    expect(windingOf(made({}), [[0, 0, -1], [1, 0, -1], [0, 1, -1]])).toEqual({ facing: 'front', area: answer(1250) }); // prettier-ignore
    expect(windingOf(made({}), [[0, 0, -1], [0, 1, -1], [1, 0, -1]])).toEqual({ facing: 'back', area: answer(-1250) }); // prettier-ignore
    expect(
      windingOf(made({}), [
        [0, 0, -1],
        [0, 0, -3],
        [5, 0, -2],
      ]).facing,
    ).toBe('edgeOn');
    expect(
      windingOf(made({}), [
        [1, 1, -2],
        [1, 1, -2],
        [3, 1, -2],
      ]).facing,
    ).toBe('edgeOn');
    expect(windingOf(made({}), [[0, 0, 1], [1, 0, 1], [0, 1, 1]])).toEqual({ facing: 'back', area: noAnswer('behindEye') }); // prettier-ignore
  });
});

/** Vectors of up to a size in steps of a hundredth of it: none is next to nothing without being 0. */
const grid = (size: number) =>
  fc
    .tuple(
      fc.integer({ min: -100, max: 100 }),
      fc.integer({ min: -100, max: 100 }),
      fc.integer({ min: -100, max: 100 }),
    )
    .map((v) => scale(v, size / 100));

describe('shadows on a plane', () => {
  it('fall where the matrix says, on the side that the light leads to; beyond plane or light there are none', () => {
    const light = fc.oneof(
      grid(1).map((travels): Light => ({ kind: 'directional', travels })),
      grid(40).map((at): Light => ({ kind: 'point', at })),
    );
    let [shadows, away] = [0, 0];
    fc.assert(
      fc.property(light, grid(20), grid(1), grid(30), (light, point, normal, p) => {
        const plane = { point, normal };
        const matrix = planarShadow(light, plane);
        const shadow = shadowOf(light, plane, p);
        const n = normalize(normal);
        if (!matrix.ok || !n || length(normal) < 1e-3) return;
        // Where the light nearly runs along the plane, rounding is all that is left of the slant.
        const lit = light.kind === 'point' ? dot(n, sub(light.at, point)) : dot(n, light.travels);
        if (Math.abs(lit) < 1e-2) return;
        const w = matrix.value[12]! * p[0] + matrix.value[13]! * p[1] + matrix.value[14]! * p[2] + matrix.value[15]!;
        const height = dot(n, sub(p, point));
        if (shadow.ok) {
          shadows++;
          const there = transformPoint(matrix.value, p);
          const flattened = scale(there, 1 / w);
          if (Math.abs(w) > 1e-3) expect(distance(flattened, shadow.value)).toBeLessThan(1e-7 * (1 + length(shadow.value))); // prettier-ignore
          expect(Math.abs(dot(n, sub(shadow.value, point)))).toBeLessThan(1e-9 * (1 + length(shadow.value)));
        } else if (shadow.reason === 'awayFromReceiver') {
          away++;
          const from = light.kind === 'point' ? dot(n, sub(light.at, point)) : -Infinity * Math.sign(dot(n, light.travels)); // prettier-ignore
          if (Math.min(Math.abs(height), Math.abs(from)) < 1e-6) return;
          // On the other side of the plane than the light, or farther from it than the light.
          expect(height * from < 0 || Math.abs(height) > Math.abs(from) - 1e-9).toBe(true);
        }
      }),
      { numRuns: runs(400) },
    );
    expect(shadows).toBeGreaterThan(20);
    expect(away).toBeGreaterThan(10);
  });

  it('of a point on the plane is the point, and there is none where the light runs along the plane', () => {
    const ground = { point: [0, 2, 0], normal: [0, 3, 0] } as const;
    const sun: Light = { kind: 'directional', travels: [1, -1, 0] };
    expect(shadowOf(sun, ground, [5, 4, 1])).toEqual(answer([7, 2, 1]));
    expect(shadowOf(sun, ground, [5, 2, 1])).toEqual(answer([5, 2, 1]));
    expect(shadowOf(sun, ground, [5, 1, 1])).toEqual(noAnswer('awayFromReceiver'));
    expect(shadowOf({ kind: 'directional', travels: [1, 0, 0] }, ground, [5, 4, 1])).toEqual(noAnswer('rayParallel'));
    const lamp: Light = { kind: 'point', at: [0, 6, 0] };
    expect(shadowOf(lamp, ground, [1, 4, 0])).toEqual(answer([2, 2, 0]));
    expect(shadowOf(lamp, ground, [1, 6, 0])).toEqual(noAnswer('rayParallel'));
    expect(shadowOf(lamp, ground, [1, 7, 0])).toEqual(noAnswer('awayFromReceiver'));
    // From below as well as from above.
    expect(shadowOf({ kind: 'point', at: [0, -2, 0] }, ground, [1, 0, 0])).toEqual(answer([2, 2, 0]));
  });

  it('lie on the plane and on the light’s line through the point', () => {
    fc.assert(
      fc.property(vectors(20), vectors(5), vectors(1), vectors(30), fc.boolean(), (p, point, normal, light, sun) => {
        const n = normalize(normal);
        const l = normalize(light);
        if (!n || !l || Math.abs(dot(n, l)) < 0.05 || (!sun && Math.abs(dot(n, sub(light, point))) < 1)) return;
        const matrix = planarShadow(sun ? { kind: 'directional', travels: light } : { kind: 'point', at: light }, { point, normal }); // prettier-ignore
        if (!matrix.ok) throw new Error(matrix.reason);
        const [x, y, z, w] = transform(matrix.value, [...p, 1]);
        if (sun) expect(w).toBeCloseTo(1, 12);
        if (Math.abs(w) < 0.01) return;
        const shadow: Vec3 = [x / w, y / w, z / w];
        const size = 1 + length(shadow) + length(light);
        expect(Math.abs(dot(n, sub(shadow, point)))).toBeLessThan(1e-9 * size);
        const line = sun ? light : sub(p, light);
        expect(length(cross(sub(shadow, p), line))).toBeLessThan(1e-8 * size * (1 + length(line)));
      }),
    );
    expect(planarShadow({ kind: 'directional', travels: [1, 0, 0] }, { point: [0, 0, 0], normal: [0, 1, 0] })).toEqual({
      ok: false,
      reason: 'rayParallel',
    });
    // Sun at 45°: a mast of 10 throws a shadow of 10.
    const noon = planarShadow({ kind: 'directional', travels: [1, -1, 0] }, { point: [0, 0, 0], normal: [0, 1, 0] });
    if (!noon.ok) throw new Error(noon.reason);
    const top = transform(noon.value, [0, 10, 0, 1]);
    [10, 0, 0, 1].forEach((v, i) => expect(top[i]).toBeCloseTo(v, 13));
  });
});

describe('the angular mapping', () => {
  it('goes both ways, and agrees with the plane on the middles of the edges', () => {
    fc.assert(
      fc.property(frames, picturePositions, (frame, [x, y]) => {
        const span = angularSpan(frame);
        expect(span === null).toBe(frame.kind === 'orthographic');
        if (!span) return;
        const bearing = angularToBearing(span, [x, y]);
        const back = bearingToAngular(span, bearing);
        expect(Math.hypot(back[0] - x, back[1] - y)).toBeLessThan(1e-10 / Math.min(Math.abs(span.right - span.left), Math.abs(span.top - span.bottom), 1)); // prettier-ignore
        const again = partsToBearing(bearingToParts(bearing));
        expect(Math.hypot(again[0] - bearing[0], again[1] - bearing[1])).toBeLessThan(1e-12);
      }),
    );
    const frame = made({});
    for (const pixel of [
      [100, 50],
      [0, 50],
      [200, 50],
      [100, 0],
      [100, 100],
    ] as const)
      // prettier-ignore
      expect(Math.hypot(...angularError(frame, pixel)!)).toBeLessThan(1e-12);
    // With a lens shift each edge keeps its middle in the direction across it: the middles are those of
    // the edges, not of the axis.
    fc.assert(
      fc.property(frames, fc.constantFrom([1, 0], [-1, 0], [0, 1], [0, -1]), (frame, middle) => {
        const found = angularOfPicture(frame, middle as [number, number]);
        const axis = middle[0] === 0 ? 1 : 0;
        if (found) expect(found.picture[axis]).toBeCloseTo(middle[axis]!, 9);
        // The same by the edges' own angles.
        const span = angularSpan(frame);
        const narrow = span && Math.min(Math.abs(span.right - span.left), Math.abs(span.top - span.bottom)) < 1e-3;
        if (!found || !span || narrow) return;
        const same = bearingToAngular(span, found.direction);
        expect(distance([...found.picture, 0], [...same, 0])).toBeLessThan(1e-9);
      }),
    );
    // 90° high, 2 wide: half way to the right edge the plane shows atan 1 = 45°, the mapping has it
    // at 45°/63.43° of the way.
    expect(angularError(frame, [150, 50])![0]).toBeCloseTo((100 * Math.PI) / 4 / Math.atan(2) - 50, 12);
  });
});

describe('depth precision', () => {
  const lens = (near: number, far: number | null): ResolvedProjection => {
    const projection = resolveProjection({ kind: 'perspective', near, far, lens: { verticalFov: 1 } }, 1);
    if (!projection.ok) throw new Error(projection.problems[0]!.message);
    return projection.value;
  };
  it('is the distance between what two neighbouring stored depths mean', () => {
    fc.assert(
      fc.property(
        real(-2, 1),
        real(0.5, 5),
        fc.option(real(0.1, 4)),
        fc.boolean(),
        fc.constantFrom(...depthFormats),
        (a, b, more, reversed, format) => {
          const near = 10 ** a;
          const ahead = near * 10 ** b;
          const far = more === null ? null : ahead * 10 ** more;
          const depth = (f: number) => {
            const plain = far === null ? 1 - near / f : (far * (f - near)) / ((far - near) * f);
            const fromFar = far === null ? near / f : (near * (far - f)) / ((far - near) * f);
            return reversed ? fromFar : plain;
          };
          const distanceOf = (d: number) => {
            const s = reversed ? d : 1 - d;
            return far === null ? near / s : near / (s + (near / far) * (1 - s));
          };
          // The stored numbers on either side of the depth, found by rounding in the format itself.
          const d = depth(ahead);
          const step = depthStep(format, d);
          const low = Math.floor(d / step) * step;
          const gap = Math.abs(distanceOf(low + step) - distanceOf(low));
          const told = depthResolution(lens(near, far), ahead, format, reversed)!;
          if (!(gap < ahead / 100)) return;
          expect(told / gap).toBeGreaterThan(0.97);
          expect(told / gap).toBeLessThan(1.03);
          if (format === 'float32') {
            expect(Math.fround(low)).toBe(low);
            expect(Math.fround(low + step)).toBe(low + step);
            expect(Math.fround(low + step * 0.4)).not.toBe(low + step * 0.4);
          }
        },
      ),
      { numRuns: runs(500) },
    );
  });
  it('is poor at a distance in plain float and good in reversed float', () => {
    // Near 0.1, infinite far, 10,000 ahead: plain steps of 2⁻²⁴ over the slope n/f² = 10⁻⁹.
    expect(depthResolution(lens(0.1, null), 1e4, 'float32', false)).toBeCloseTo(2 ** -24 * 1e9, 6);
    // Reversed, the depth is 10⁻⁵, whose step is 2⁻⁴⁰.
    expect(depthResolution(lens(0.1, null), 1e4, 'float32', true)).toBeCloseTo(2 ** -40 * 1e9, 10);
    // At the ends themselves nothing is lost to rounding: the float next to 0 is subnormal.
    for (const kind of ['perspective', 'orthographic'] as const) {
      const ends = { ...lens(0.3, 100), kind };
      const slope = (ahead: number) => (kind === 'orthographic' ? 1 / 99.7 : (0.3 * 100) / 99.7 / ahead ** 2);
      for (const [ahead, reversed, step] of [
        [0.3, false, 2 ** -149],
        [100, true, 2 ** -149],
        [100, false, 2 ** -24],
        [0.3, true, 2 ** -24],
      ] as const)
        // prettier-ignore
        expect(depthResolution(ends as DepthRange, ahead, 'float32', reversed)! / (step / slope(ahead))).toBeCloseTo(1, 9);
    }
    expect(depthResolution(lens(0.1, 100), 0.05, 'unorm24', false)).toBeNull();
    expect(depthResolution(lens(0.1, 100), 101, 'unorm24', false)).toBeNull();
  });
});

describe('the pixel derivative', () => {
  it('is what a small step of the point finds', () => {
    fc.assert(
      fc.property(frames, picturePositions, shares, vectors(1), (frame, [x, y], share, velocity) => {
        const ahead = aheadAt(frame, share);
        const p = viewRufToWorld(frame, pictureToViewRuf(frame, x, y, ahead));
        const found = pixelDerivative(frame, p);
        if (!found.ok) throw new Error(found.reason);
        const step = 1e-5 * Math.max(frame.near, Math.min(ahead, 1e3));
        const at = (k: number) => worldToPixel(frame, add(p, scale(velocity, k * step)));
        const [a, b] = [at(1), at(-1)];
        if (!a.ok || !b.ok) return;
        const v = pixelVelocity(found.value, velocity);
        const size = Math.max(length(found.value.x), length(found.value.y));
        // The pixels themselves are only so exact.
        const noise = (1e-11 * (1 + distance(p, [0, 0, 0])) * size) / step + 1e-9 / step;
        expect(Math.abs((a.value[0] - b.value[0]) / (2 * step) - v[0])).toBeLessThan(1e-6 * size + noise);
        expect(Math.abs((a.value[1] - b.value[1]) / (2 * step) - v[1])).toBeLessThan(1e-6 * size + noise);
      }),
    );
    expect(pixelDerivative(made({}), [0, 0, 3])).toEqual({ ok: false, reason: 'behindEye' });
    expect(pixelDerivative(made({}), [1, 0, 0])).toEqual({ ok: false, reason: 'onEyePlane' });
    // 50 pixels per unit and f = 2: 25 to the right per unit, and at r/f = 1/2 half of that back
    // per unit ahead.
    const there = pixelDerivative(made({}), [1, 0, -2]);
    expect(there.ok && [...there.value.x, ...there.value.y].map((v) => v + 0)).toEqual([25, 0, 12.5, 0, -25, 0]);
  });
});
