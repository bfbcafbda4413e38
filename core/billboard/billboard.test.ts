import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { frameOf, reposed } from '../camera/frame';
import { worldUp } from '../camera/orientation';
import { codecOf } from '../conventions/codec';
import { signedAxes } from '../conventions/axes';
import { turnBetween } from '../convert/compare';
import { pixelsPerUnit, worldToPixel, worldToViewRuf } from '../convert/project';
import { add, addScaled, cross, distance, dot, length, normalize, sub, type Vec3 } from '../math/vec3';
import { conventions, frames, real, vectors } from '../testing/arbitraries';
import { billboard, facePoint, modesApart } from './billboard';
import { axesOf, letteringFaults, meshColumns, readingOf, twoLines } from './lettering';
import { headingAt, passed, turnRateAt, type Passing } from './passing';
import { screenSize, screenSizeAt } from './size';
import { runs } from '../testing/seed';

const modes = ['viewPlane', 'eyePoint', 'axisEye', 'axisView'] as const;
const near = (a: Vec3, b: Vec3, tolerance = 1e-9) => expect(distance(a, b)).toBeLessThan(tolerance);
const anywhere = fc.tuple(frames, vectors(60));
const axes = vectors(1).filter((v) => length(v) > 1e-3);

describe('modes of facing', () => {
  it('give square axes of the world’s handedness, and part by the angle between their normals', () => {
    fc.assert(
      fc.property(anywhere, fc.constantFrom(...modes), fc.constantFrom(...modes), axes, ([frame, at], a, b, axis) => {
        const [one, other] = [billboard(frame, at, a, axis), billboard(frame, at, b, axis)];
        for (const { right, up, normal } of [one, other]) {
          near(cross(right, up), normal, 1e-6);
          for (const v of [right, up, normal]) expect(length(v)).toBeCloseTo(1, 6);
        }
        const apart = modesApart(frame, at, [a, b], axis);
        expect(Math.cos(apart)).toBeCloseTo(dot(one.normal, other.normal), 6);
        if (a === b) expect(apart).toBe(0);
      }),
    );
  });

  it('towards a point is towards the eye where the point is the eye, and turns its back beyond a point ahead', () => {
    fc.assert(
      fc.property(anywhere, real(0.5, 40), ([frame, at], step) => {
        if (frame.kind !== 'perspective' || distance(frame.eye, at) < 1e-3) return;
        const toEye = billboard(frame, at, 'eyePoint');
        near(facePoint(frame, at, frame.eye)!.normal, toEye.normal);
        // A target one step from the item against the gaze is the reversed gaze itself.
        near(
          facePoint(frame, at, addScaled(at, frame.forward, -step))!.normal,
          billboard(frame, at, 'viewPlane').normal,
        );
        // A point ahead of the eye is faced away from the eye by what is nearer ahead than it.
        const ahead = facePoint(frame, at, addScaled(frame.eye, frame.forward, step));
        const f = worldToViewRuf(frame, at)[2];
        if (ahead && Math.abs(f - step) > 1e-6) expect(dot(ahead.normal, frame.forward) < 0).toBe(f > step);
      }),
    );
    const frame = frameOf({ position: [1, 2, 3], orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 }, projection: { kind: 'perspective', near: 1, far: 9, lens: { verticalFov: 1 } } }, { x: 0, y: 0, width: 4, height: 3 }); // prettier-ignore
    if (!frame.ok) throw new Error('the camera of the test');
    expect(facePoint(frame.value, [1, 2, 3], [1, 2, 3])).toBeNull();
    expect(facePoint(frame.value, [1, 2, 3], [1, 9, 3])!.degenerate).toBe(true);
  });

  it('is what two lines of code say, in any axes', () => {
    fc.assert(
      fc.property(anywhere, conventions, fc.constantFrom(...modes), ([frame, at], own, mode) => {
        if (frame.kind !== 'perspective') return;
        const found = billboard(frame, at, mode);
        if (found.degenerate || distance(at, frame.eye) < 1e-3) return;
        const e = codecOf(own);
        const lines = twoLines(mode, e.handedness.world);
        const given: Record<string, Vec3> = { position: e.toWorld(at), eye: e.toWorld(frame.eye), gaze: e.toWorld(frame.forward), cameraRight: e.toWorld(frame.right), cameraUp: e.toWorld(frame.up), worldUp: e.toWorld(worldUp), axis: e.toWorld(worldUp) }; // prettier-ignore
        const vector = (text: string, names: Record<string, Vec3>): Vec3 => {
          const call = /^(normalize|cross)\((.*)\)$/.exec(text);
          if (call) {
            let [depth, comma] = [0, -1];
            [...call[2]!].forEach(
              (c, i) => ((depth += c === '(' ? 1 : c === ')' ? -1 : 0), c === ',' && !depth && (comma = i)),
            );
            if (call[1] === 'normalize') return normalize(vector(call[2]!, names))!;
            return cross(
              vector(call[2]!.slice(0, comma).trim(), names),
              vector(call[2]!.slice(comma + 1).trim(), names),
            );
          }
          const less = /^(\w+) - (\w+)$/.exec(text);
          if (less) return sub(names[less[1]!]!, names[less[2]!]!);
          return text.startsWith('-') ? addScaled([0, 0, 0], names[text.slice(1)]!, -1) : names[text]!;
        };
        const names = { ...given };
        for (const line of lines)
          for (const part of line.replace(/^vec3 |;$/g, '').split(/, (?=\w+ = )/)) {
            const [name, text] = part.split(' = ') as [string, string];
            names[name] = vector(text, names);
          }
        near(names.normal!, e.toWorld(found.normal), 1e-7);
        near(names.right!, e.toWorld(found.right), 1e-7);
        near(names.up!, e.toWorld(found.up), 1e-7);
      }),
    );
  });
});

describe('lettering', () => {
  it('reads right on every billboard as it should be, and what is wrong with it is named', () => {
    const seen = new Set<string>();
    fc.assert(
      fc.property(
        anywhere,
        fc.constantFrom(...modes),
        fc.constantFrom(null, ...letteringFaults),
        fc.boolean(),
        ([given, at], mode, fault, mirrored) => {
          const { extents: e } = given;
          const frame = mirrored ? reposed(given, { extents: { ...e, left: e.right, right: e.left } })! : given;
          if (!frame) return;
          const axes = axesOf(billboard(frame, at, mode), fault);
          const found = readingOf(frame, at, axes, fault);
          // By the pixels: a step along and a step up, as the viewer of the screen sees them.
          const f = worldToViewRuf(frame, at)[2];
          const step = 1e-5 * (frame.kind === 'perspective' ? Math.abs(f) : 1);
          const places = [at, addScaled(at, axes.along, step), addScaled(at, axes.up, step)].map((p) =>
            worldToPixel(frame, p),
          );
          if (found.reads === 'edgeOn' || f <= 2 * step || !places.every((one) => one.ok)) return;
          const [o, a, u] = places.map((one) => (one.ok ? one.value : [0, 0])) as unknown as [number, number][];
          const area = (a![0] - o![0]) * (o![1] - u![1]) - (o![1] - a![1]) * (u![0] - o![0]);
          const size = Math.hypot(a![0] - o![0], a![1] - o![1]) * Math.hypot(u![0] - o![0], u![1] - o![1]);
          if (Math.abs(area) < 1e-3 * size || size < 1e-9) return;
          expect(found.reads).toBe(area > 0 ? 'right' : 'mirrored');
          expect(found.shows === 'front').toBe(fault === 'winding' ? area < 0 : area > 0);
          // An axis board may be seen from behind by none of the faults only where the eye is beyond its plane.
          const facesEye = mode === 'eyePoint' || mode === 'axisEye';
          if (facesEye && !mirrored && fault !== 'winding') expect(found.causes).toEqual(fault ? [fault] : []);
          if (facesEye && fault === 'winding') expect(found.causes).toContain('winding');
          expect(found.reads === 'mirrored' || found.shows === 'back').toBe(found.causes.filter((one) => one !== 'winding').length % 2 === 1 || fault === 'winding'); // prettier-ignore
          seen.add(`${fault} ${found.reads} ${found.shows}`);
        },
      ),
      { numRuns: runs(600) },
    );
    expect(seen.size).toBeGreaterThan(5);
  });

  it('of a mesh of one’s own goes from its front and up axes to the item’s, by a proper rotation', () => {
    fc.assert(
      fc.property(
        anywhere,
        fc.constantFrom(...signedAxes),
        fc.constantFrom(...signedAxes),
        ([frame, at], front, up) => {
          const item = billboard(frame, at, 'eyePoint');
          const columns = meshColumns(front, up, item.normal, item.up);
          if (front[1] === up[1]) return void expect(columns).toBeNull();
          const [x, y, z] = columns!;
          near(cross(x, y), z);
          const carried = (axis: string): Vec3 =>
            addScaled([0, 0, 0], columns!['xyz'.indexOf(axis[1]!)]!, axis[0] === '+' ? 1 : -1);
          near(carried(front), item.normal);
          near(carried(up), item.up);
        },
      ),
    );
    const item = billboard(frameAhead, [0, 0, -5], 'viewPlane');
    meshColumns('+z', '+y', item.normal, item.up)!.forEach((column, i) =>
      near(column, [item.right, item.up, item.normal][i]!),
    );
  });
});

const made = frameOf({ position: [0, 0, 0], orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 }, projection: { kind: 'perspective', near: 0.1, far: 99, lens: { verticalFov: 1 } } }, { x: 0, y: 0, width: 640, height: 480 }); // prettier-ignore
if (!made.ok) throw new Error('the camera of the test');
const frameAhead = made.value;

describe('an eye that passes over', () => {
  const passings = fc.record({
    ...{ offset: fc.oneof(fc.constant(0), real(1e-3, 5)), speed: real(0.5, 20) },
    ...{ height: real(1, 30), hold: fc.oneof(fc.constant(0), real(1e-3, 0.5)) },
  });

  it('has a board turn as the board itself does, by v·d/(d² + v²t²), half a turn in all', () => {
    fc.assert(
      fc.property(passings, real(-3, 3), (p: Passing, time) => {
        const board = (t: number) => {
          const eye: Vec3 = [p.speed * t, p.height, p.offset];
          const frame = reposed(frameAhead, { eye, basis: { right: [1, 0, 0], up: [0, 0, -1], forward: [0, -1, 0] } })!;
          return billboard(frame, [0, 0, 0], 'axisEye');
        };
        const now = board(time);
        if (now.degenerate) return;
        const heading = headingAt(p, time, false);
        expect(Math.atan2(now.normal[0], now.normal[2])).toBeCloseTo(heading, 9);
        const h = 1e-6 * Math.max(0.01, p.offset / p.speed);
        if (p.offset > 1e-3)
          expect(turnBetween(board(time - h).quaternion, board(time + h).quaternion) / (2 * h) / turnRateAt(p, time, false)).toBeCloseTo(1, 2); // prettier-ignore
        const { peak, snap } = passed(p);
        if (peak !== null) expect(turnRateAt(p, time, false)).toBeLessThanOrEqual(peak * (1 + 1e-12));
        expect(snap).toBe(p.offset > 0 ? 0 : Math.PI);
      }),
    );
  });

  it('is held within a cone, and jumps by what was missed when it leaves it', () => {
    fc.assert(
      fc.property(passings, real(-3, 3), (p: Passing, time) => {
        const { heldFor, jump, heldPeak } = passed(p);
        const level = Math.hypot(p.speed * time, p.offset);
        const within = p.hold > 0 && level < p.height * Math.tan(p.hold);
        if (Math.abs(Math.abs(time) - heldFor) > 1e-9) expect(Math.abs(time) < heldFor).toBe(within);
        if (within) {
          expect(headingAt(p, time, true)).toBeCloseTo(headingAt(p, -heldFor, false), 9);
          expect(turnRateAt(p, time, true)).toBe(0);
          expect(jump).toBeCloseTo(headingAt(p, heldFor, false) - headingAt(p, -heldFor, false), 9);
        } else {
          expect(headingAt(p, time, true)).toBe(headingAt(p, time, false));
          if (heldPeak !== null && heldFor > 0)
            expect(turnRateAt(p, time, true)).toBeLessThanOrEqual(heldPeak * (1 + 1e-9));
        }
      }),
    );
    // Straight over, held within 10 m at 5 m/s: all of the half turn comes at once, two seconds late.
    const straight = passed({ offset: 0, speed: 5, height: 10, hold: Math.PI / 4 });
    expect(straight).toMatchObject({ peak: null, snap: Math.PI, jump: Math.PI, heldPeak: 0 });
    expect(straight.heldFor).toBeCloseTo(2, 12);
  });
});

describe('a constant size on the screen', () => {
  it('has as many pixels as asked between its limits, and its limit’s world size beyond', () => {
    fc.assert(
      fc.property(
        frames,
        real(0.5, 400),
        real(1, 50),
        real(1, 10),
        real(5, 200),
        (frame, ahead, nearest, times, pixels) => {
          const farthest = nearest * times;
          const size = { pixels, nearest, farthest, fade: [farthest, 2 * farthest] as const };
          const found = screenSizeAt(frame, ahead, size);
          if (!found.ok) throw new Error('it is ahead');
          const unit = (at: number) => Math.abs(pixelsPerUnit(frame, at)[1]);
          expect(found.value.height * unit(ahead)).toBeCloseTo(found.value.pixels, 6);
          if (ahead >= nearest && ahead <= farthest) expect(found.value.pixels / pixels).toBeCloseTo(1, 9);
          else if (frame.kind === 'perspective') expect(found.value.pixels < pixels).toBe(ahead > farthest);
          expect(found.value.opacity).toBeCloseTo(
            ahead <= farthest ? 1 : ahead >= 2 * farthest ? 0 : 2 - ahead / farthest,
            9,
          );
        },
      ),
    );
    const size = { pixels: 24, nearest: 1, farthest: 50, fade: [40, 40] as const };
    expect(screenSize(frameAhead, [0, 0, 3], size)).toEqual({ ok: false, reason: 'behindEye' });
    const there = screenSize(frameAhead, add([0, 0, -20], [1, 0, 0]), size);
    // 24 of 480 pixels, of 2·tan(½)·20 units.
    expect(there.ok && there.value.height).toBeCloseTo((24 / 480) * 2 * Math.tan(0.5) * 20, 9);
    expect(there.ok && there.value.opacity).toBe(1);
  });
});
