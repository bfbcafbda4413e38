import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { frameOf, planesOf, type CameraFrame } from '../camera/frame';
import { defaultConventions } from '../conventions/conventions';
import { codecOf } from '../conventions/codec';
import { distance, length, sub, type Vec3 } from '../math/vec3';
import { multiply, transform, type Mat4 } from '../math/mat4';
import { aheadAt, conventions, frames, picturePositions, shares, vectors } from '../testing/arbitraries';
import { placeBodies } from '../bodies/body';
import { carry, chainOf, redrive, type Rung } from './chain';
import {
  depthToAhead,
  divide,
  viewRufToClip,
  viewRufToWorld,
  pictureToViewRuf,
  projectPoint,
  worldToViewRuf,
  worldToPixel,
} from './project';
import { aheadOf, pictureToWorld, rangeToPlane, type DepthChoice } from './unproject';
import { pixelToPicture, rayThrough } from './project';
import { runs } from '../testing/seed';

const inside = fc.tuple(frames, picturePositions, shares);
/** The size against which an error is judged: the numbers that take part. */
const scaleOf = (frame: CameraFrame, p: Vec3) => 1 + length(frame.eye) + length(p);

describe('projecting and back', () => {
  it('is the identity to 1e-9 of the scale, in any conventions and through the sixteen numbers too', () => {
    fc.assert(
      fc.property(inside, conventions, ([frame, [across, upward], share], c) => {
        const e = codecOf(c);
        const ahead = aheadAt(frame, share);
        const world = viewRufToWorld(frame, pictureToViewRuf(frame, across, upward, ahead));
        const projected = projectPoint(frame, world);
        if (!projected.picture.ok) throw new Error(projected.picture.reason);
        const screen = e.toScreen(frame.viewport, projected.picture.value.across, projected.picture.value.upward);
        const back = pictureToWorld(frame, ...e.fromScreen(frame.viewport, screen), {
          kind: 'ahead',
          ahead: projected.viewRuf[2],
        });
        if (!back.ok) throw new Error(back.reason);
        expect(distance(back.value, world) / scaleOf(frame, world)).toBeLessThan(1e-9);
        expect(worldToViewRuf(frame, viewRufToWorld(frame, projected.viewRuf))[2]).toBeCloseTo(projected.viewRuf[2], 5);
      }),
      { numRuns: runs(1000) },
    );
  });

  it('comes back from the depth value as far as the depth resolves', () => {
    fc.assert(
      fc.property(inside, ([frame, , share]) => {
        const ahead = aheadAt(frame, share);
        const picture = divide(frame, viewRufToClip(frame, [0, 0, ahead]));
        if (!picture.ok) throw new Error(picture.reason);
        const back = depthToAhead(frame, picture.value.depth01);
        if (!back.ok) throw new Error(back.reason);
        // In orthographic depth is spread evenly: what is lost is a rounding of the whole range,
        // not of the distance.
        const spread = frame.kind === 'orthographic' ? frame.far : 0;
        expect(Math.abs(back.value - ahead)).toBeLessThan(1e-9 * ahead + 1e-15 * spread);
      }),
      { numRuns: runs(1000) },
    );
  });

  it('gives one point for the four ways to say its depth', () => {
    fc.assert(
      fc.property(inside, vectors(1), ([frame, [across, upward], share], normal) => {
        const ahead = aheadAt(frame, share);
        const point = viewRufToWorld(frame, pictureToViewRuf(frame, across, upward, ahead));
        const ray = rayThrough(frame, across, upward);
        const picture = divide(frame, viewRufToClip(frame, worldToViewRuf(frame, point)));
        if (!picture.ok) throw new Error(picture.reason);
        const choices: DepthChoice[] = [
          { kind: 'depth', shares: picture.value.depth01 },
          { kind: 'ahead', ahead },
          { kind: 'range', range: ahead * ray.rangePerAhead },
        ];
        const slant = Math.abs(
          normal[0] * ray.direction[0] + normal[1] * ray.direction[1] + normal[2] * ray.direction[2],
        );
        if (slant > 0.05 && ahead * ray.rangePerAhead > 1e-6) choices.push({ kind: 'plane', point, normal });
        for (const choice of choices) {
          const answer = pictureToWorld(frame, across, upward, choice);
          if (!answer.ok) throw new Error(`${choice.kind}: ${answer.reason}`);
          expect(distance(answer.value, point) / scaleOf(frame, point)).toBeLessThan(1e-7);
        }
      }),
      { numRuns: runs(500) },
    );
  });

  it('never gives a point behind the eye a place on the screen', () => {
    fc.assert(
      fc.property(frames, vectors(1000), (frame, offset) => {
        const ahead = -Math.abs(offset[2]);
        const point = viewRufToWorld(frame, [offset[0], offset[1], ahead]);
        const { picture, viewRuf, outside } = projectPoint(frame, point);
        if (frame.kind === 'orthographic') {
          expect(picture.ok).toBe(true);
          return;
        }
        if (viewRuf[2] > 0) return; // rounding carried it over the eye plane
        expect(picture).toEqual({ ok: false, reason: viewRuf[2] === 0 ? 'onEyePlane' : 'behindEye' });
        expect(worldToPixel(frame, point).ok).toBe(false);
        expect(outside).toContain('near');
      }),
      { numRuns: runs(1000) },
    );
  });

  it('keeps its digits a million units from the origin, with near at a hundredth and far at infinity', () => {
    fc.assert(
      fc.property(
        vectors(1e6),
        picturePositions,
        fc.double({ min: 10, max: 1e5, noNaN: true }),
        (position, [x, y], ahead) => {
          const made = frameOf(
            {
              position,
              orientation: { kind: 'angles', yaw: 0.7, pitch: -0.3, roll: 0.1 },
              projection: { kind: 'perspective', near: 0.01, far: null, lens: { verticalFov: 1 } },
            },
            { x: 0, y: 0, width: 1920, height: 1080 },
          );
          if (!made.ok) throw new Error('no frame');
          const frame = made.value;
          const pixel = [(x + 1) * 960, (y + 1) * 540] as const;
          const point = pictureToWorld(frame, ...pixelToPicture(frame, pixel), { kind: 'ahead', ahead });
          const again = point.ok && worldToPixel(frame, point.value);
          if (!again || !again.ok) throw new Error('no answer');
          // A world coordinate of 1e6 is itself known to 1.2e-10: at `ahead` that many pixels
          // cannot be had back.
          const unavoidable = (2e-10 / ahead) * 2000;
          expect(Math.hypot(again.value[0] - pixel[0], again.value[1] - pixel[1])).toBeLessThan(1e-6 + unavoidable);
        },
      ),
    );
  });
});

describe('the matrices of any conventions', () => {
  it('say the same as the chain: P·V·p is the clip position, and the inverse undoes it', () => {
    fc.assert(
      fc.property(inside, conventions, ([frame, [across, upward], share], c) => {
        const e = codecOf(c);
        const point = viewRufToWorld(frame, pictureToViewRuf(frame, across, upward, aheadAt(frame, share)));
        const { clip, viewRuf } = projectPoint(frame, point);
        const world = [...e.toWorld(point), 1] as const;
        const near = (actual: readonly number[], expected: readonly number[], scale: number) =>
          actual.forEach((v, i) => expect(Math.abs(v - expected[i]!) / scale).toBeLessThan(1e-9));
        const size = scaleOf(frame, point);
        const view = transform(e.matrix(frame, 'view'), world);
        near(view, [...e.toView(viewRuf), 1], size);
        const magnification = Math.max(...e.matrix(frame, 'projection').map(Math.abs));
        near(transform(e.matrix(frame, 'projection'), [...e.toView(viewRuf), 1]), e.toClip(clip), size * magnification);
        near(transform(e.matrix(frame, 'viewProjection'), world), e.toClip(clip), size * magnification);
        const product = multiply(e.matrix(frame, 'inverseViewProjection'), e.matrix(frame, 'viewProjection'));
        const grown =
          Math.max(...e.matrix(frame, 'inverseViewProjection').map(Math.abs)) * Math.max(1, magnification) * size;
        near(product, [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1], grown);
        expect(e.fromList(e.toList(product as Mat4))).toEqual([...product].map((v) => (v === 0 ? 0 : v)));
      }),
      { numRuns: runs(500) },
    );
  });

  it('never move a pixel when the conventions change', () => {
    fc.assert(
      fc.property(inside, conventions, conventions, ([frame, [across, upward], share], a, b) => {
        const point = viewRufToWorld(frame, pictureToViewRuf(frame, across, upward, aheadAt(frame, share)));
        const places = [a, b].map((c) => {
          const e = codecOf(c);
          // Through this convention's own numbers alone: its world coordinates, its matrix, its
          // division, its viewport.
          const [x, y, z, w] = transform(e.matrix(frame, 'viewProjection'), [...e.toWorld(point), 1]);
          const picture = e.fromNdc([x / w, y / w, z / w]);
          return e.fromScreen(frame.viewport, e.toScreen(frame.viewport, picture.across, picture.upward));
        });
        const slack = 1e-7 * (1 + (scaleOf(frame, point) * 3) / aheadAt(frame, share));
        expect(Math.abs(places[0]![0] - places[1]![0])).toBeLessThan(slack);
        expect(Math.abs(places[0]![1] - places[1]![1])).toBeLessThan(slack);
      }),
      { numRuns: runs(500) },
    );
  });

  it('agree with the planes about what is outside', () => {
    fc.assert(
      fc.property(frames, vectors(300), (frame, point) => {
        const { outside } = projectPoint(frame, point);
        for (const {
          name,
          plane: [x, y, z, d],
        } of planesOf(frame)) {
          const clear = x * point[0] + y * point[1] + z * point[2] + d;
          if (Math.abs(clear) > 1e-7 * scaleOf(frame, point)) expect(outside.includes(name)).toBe(clear < 0);
        }
      }),
      { numRuns: runs(500) },
    );
  });
});

describe('going back without an answer', () => {
  const made = frameOf(
    {
      position: [0, 2, 0],
      orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
      projection: { kind: 'perspective', near: 0.1, far: null, lens: { verticalFov: 1 } },
    },
    { x: 0, y: 0, width: 100, height: 100 },
  );
  const frame = (made as { value: CameraFrame }).value;
  it.each([
    ['behindEye', { kind: 'ahead', ahead: -1 }],
    ['onEyePlane', { kind: 'ahead', ahead: 0 }],
    ['behindEye', { kind: 'range', range: -1e-9 }],
    ['depthAtInfinity', { kind: 'depth', shares: { near: 0, far: 1 } }],
    ['behindEye', { kind: 'depth', shares: { near: -0.5, far: 1.5 } }],
    ['rayParallel', { kind: 'plane', point: [0, 0, 0], normal: [0, 1, 0] }],
    ['planeBehindEye', { kind: 'plane', point: [0, 0, 1], normal: [0, 0, 1] }],
  ] as const)('says %s', (reason, choice) => {
    expect(aheadOf(frame, 0, 0, choice)).toEqual({ ok: false, reason });
  });
  it('meets a plane where it stands', () => {
    expect(rangeToPlane(rayThrough(frame, 0, -0.5), [0, 0, 0], [0, 3, 0])).toMatchObject({ ok: true });
  });
});

describe('the chain', () => {
  const placed = placeBodies([
    {
      id: 'a',
      shape: { kind: 'point' },
      position: [3, 1, -4],
      rotation: [0, 0.6, 0, 0.8],
      scale: [2, 1, 0.5],
      parent: null,
      castsShadow: true,
    },
  ]);
  const body = placed.ok ? placed.placed[0]! : null;
  const drivable: Rung[] = ['local', 'world', 'view', 'clip', 'ndc', 'screen'];

  it('is one chain whichever rung drives it', () => {
    fc.assert(
      fc.property(inside, ([frame, [across, upward], share]) => {
        // Depth as a single number resolves about 1e-16 of its range: keep to depths that leave
        // digits for the comparison.
        const ahead = Math.min(aheadAt(frame, share), frame.near + 1e3 * Math.max(1, frame.near));
        const world = viewRufToWorld(frame, pictureToViewRuf(frame, across, upward, ahead));
        const first = chainOf(frame, body, { rung: 'world', value: world });
        if (!first.ok || !first.value.picture.ok) throw new Error('no chain');
        for (const rung of drivable) {
          const drive = redrive(frame, body, { rung: 'world', value: world }, rung);
          if (!drive.ok) throw new Error(drive.reason);
          const again = chainOf(frame, body, drive.value);
          if (!again.ok) throw new Error(again.reason);
          const off = length(sub(again.value.world, world));
          const depthDigits = frame.kind === 'perspective' ? 1 + ahead / frame.near : 1;
          expect(off / scaleOf(frame, world)).toBeLessThan(
            1e-9 * (rung === 'ndc' || rung === 'screen' ? depthDigits : 1),
          );
        }
      }),
      { numRuns: runs(300) },
    );
  });

  it('says why a held depth has no point', () => {
    const made = frameOf(
      {
        position: [0, 0, 0],
        orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
        projection: { kind: 'perspective', near: 1, far: null, lens: { verticalFov: 1 } },
      },
      { x: 0, y: 0, width: 10, height: 10 },
    );
    if (!made.ok) throw new Error();
    expect(carry(made.value, null, { rung: 'screen', value: [5, 5, 1] }, 'world')).toEqual({
      ok: false,
      reason: 'depthAtInfinity',
    });
  });
});

it('the default conventions are what the interface says they are', () => {
  expect(codecOf(defaultConventions).handedness).toEqual({ world: 'right', view: 'right' });
});

it('goes from clip to NDC and back in the camera’s own axes: far from the world’s origin nothing is lost', () => {
  const camera = (at: number) => {
    const made = frameOf(
      {
        position: [at, at, at],
        orientation: { kind: 'angles', yaw: 0.3, pitch: -0.2, roll: 0.1 },
        projection: { kind: 'perspective', near: 0.1, far: 100, lens: { verticalFov: 1 } },
      },
      { x: 0, y: 0, width: 800, height: 600 },
    );
    if (!made.ok) throw new Error();
    return made.value;
  };
  const clip = { rung: 'clip' as const, value: [0.25, -0.75, 2] as const };
  const near = carry(camera(0), null, clip, 'ndc');
  const far = carry(camera(1e12), null, clip, 'ndc');
  if (!near.ok || !far.ok) throw new Error();
  far.value.forEach((v, i) => expect(Math.abs(v - near.value[i]!)).toBeLessThan(1e-14));
});
