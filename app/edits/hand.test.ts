import fc from 'fast-check';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { worldToPixel, worldToViewRuf } from '../../core/convert/project';
import type { Vec2, Vec3 } from '../../core/math/vec3';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { cameraInSpace, flatCamera } from '../../formats/camera';
import { currentProject, editCamera, endGesture, openProject, undo, useDocument } from '../state/document';
import { momentOf } from '../state/moment';
import { anglesNow, goAhead, moveEye, panBetween, scaleView, setDepthLimit, setHeight, setVerticalFov, turnBetween, turnTo } from './camera'; // prettier-ignore
import { bringUnder, moveAnchor, pointUnder, showAt, turnWorld, wholeStep, zoomAbout } from './camera2d';

/* What the hand does to a camera: what is promised to stay stays, and one gesture is one step. */

vi.stubGlobal('requestAnimationFrame', () => 0);
vi.stubGlobal('cancelAnimationFrame', () => undefined);

const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const frame = () => momentOf(currentProject()).frame;
const steps = () => useDocument.getState().past.length;
const pixel = (world: Vec3): Vec2 => {
  const found = worldToPixel(frame(), world);
  if (!found.ok) throw new Error(found.reason);
  return found.value;
};
/** The same again from the beginning, whatever the last example did. */
const afresh = (project: ReturnType<typeof saltmarrow>) => openProject(structuredClone(project));

describe('the hand on a camera in space', () => {
  const harbour = saltmarrow();
  beforeEach(() => openProject(harbour));

  it('turns the picture after the pointer: what lay under it stays under it on the middle lines', () => {
    fc.assert(
      fc.property(real(-0.35, 0.35), (share) => {
        afresh(harbour);
        editCamera('level', (camera) => void (camera.orientation = { kind: 'angles', yaw: 20, pitch: 0, roll: 0 }));
        const v = frame().viewport;
        const middle: Vec2 = [v.x + v.width / 2, v.y + v.height / 2];
        const f = frame();
        const far = f.eye.map((e, i) => e + 1000 * f.forward[i]!) as unknown as Vec3;
        turnBetween([v.width / 2, v.height / 2], [v.width * (0.5 + share), v.height / 2], anglesNow(), 'turn');
        const now = pixel(far);
        expect(now[0]).toBeCloseTo(middle[0] + share * v.width, 1);
        expect(now[1]).toBeCloseTo(middle[1], 1);
      }),
    );
  });

  it('never turns over: however far it is pulled the pitch stays short of the pole', () => {
    fc.assert(
      fc.property(real(-1000, 1000), real(-1000, 1000), (yaw, pitch) => {
        afresh(harbour);
        editCamera('by angles', (camera) => void (camera.orientation = { kind: 'angles', yaw: 0, pitch: 0, roll: 7 }));
        turnTo(yaw, pitch, 'turn');
        const o = cameraInSpace(currentProject()).orientation;
        if (o.kind !== 'angles') throw new Error(o.kind);
        expect(Math.abs(o.pitch)).toBeLessThan(90);
        expect(o.yaw).toBeGreaterThanOrEqual(-180);
        expect(o.yaw).toBeLessThanOrEqual(180);
        expect(o.roll).toBe(7);
        expect(momentOf(currentProject()).seen.problems).toEqual([]);
      }),
    );
  });

  it('keeps the distance to what it looks at while it turns', () => {
    const looking = structuredClone(harbour);
    cameraInSpace(looking).orientation = { kind: 'lookAt', target: [0, 4, 0] };
    openProject(looking);
    const away = () => {
      const { position, orientation: o } = cameraInSpace(currentProject());
      return o.kind === 'lookAt' ? Math.hypot(...position.map((v, i) => v - o.target[i]!)) : NaN;
    };
    const before = away();
    turnTo(73, -12, 'turn');
    expect(away()).toBeCloseTo(before, 1);
    expect(anglesNow().yaw).toBeCloseTo(73, 1);
    expect(anglesNow().pitch).toBeCloseTo(-12, 1);
  });

  it('moves across so that a point at that distance follows the pointer', () => {
    fc.assert(
      fc.property(real(-200, 200), real(-150, 150), real(5, 300), (dx, dy, ahead) => {
        afresh(harbour);
        const f = frame();
        const held = f.eye.map((e, i) => e + ahead * f.forward[i]!) as unknown as Vec3;
        const from = pixel(held);
        panBetween(from, [from[0] + dx, from[1] + dy], f.eye, ahead, 'pan');
        const now = pixel(held);
        // The eye is kept to the centimetre or so.
        const perUnit = f.viewport.height / (((f.extents.top - f.extents.bottom) / f.near) * ahead);
        expect(Math.abs(now[0] - from[0] - dx)).toBeLessThan(0.02 * perUnit + 1e-6);
        expect(Math.abs(now[1] - from[1] - dy)).toBeLessThan(0.02 * perUnit + 1e-6);
      }),
    );
  });

  it('is one step of undo for a gesture, however many moves it has', () => {
    const before = currentProject();
    for (let i = 1; i <= 20; i++) moveEye([i, 5, 0], 'one');
    endGesture();
    expect(steps()).toBe(1);
    for (let i = 1; i <= 20; i++) setVerticalFov(30 + i, 'two');
    endGesture();
    expect(steps()).toBe(2);
    undo();
    undo();
    expect(currentProject()).toEqual(before);
  });

  it('keeps the field of view and the depth limits within what a camera can be', () => {
    fc.assert(
      fc.property(real(-1e4, 1e4), real(-1e4, 1e4), real(-1e4, 1e4), (fov, near, far) => {
        afresh(harbour);
        setVerticalFov(fov, 'a');
        setDepthLimit('near', near, 'b');
        setDepthLimit('far', far, 'c');
        expect(momentOf(currentProject()).seen.problems).toEqual([]);
        const p = cameraInSpace(currentProject()).projection;
        expect(p.near).toBeGreaterThan(0);
        expect(p.far!).toBeGreaterThan(p.near);
      }),
    );
  });

  it('keeps the limits apart where they are close together', () => {
    const limits = () => {
      const { near, far } = cameraInSpace(currentProject()).projection;
      return [near, far!] as const;
    };
    setDepthLimit('near', 0, 'a');
    setDepthLimit('far', 0, 'b');
    expect(limits()[1]).toBeGreaterThan(limits()[0]);
    editCamera('tiny', (camera) => void Object.assign(camera.projection, { near: 1e-5, far: 1e-3 }));
    setDepthLimit('near', 5, 'c');
    expect(limits()[0]).toBeLessThan(1e-3);
    setDepthLimit('near', -5, 'd');
    expect(limits()[0]).toBeGreaterThan(0);
    expect(momentOf(currentProject()).seen.problems).toEqual([]);
  });

  it('scales what is seen at a distance by the factor asked for, in perspective and orthographic', () => {
    const seen = () => frame().extents.top - frame().extents.bottom;
    const before = seen();
    scaleView(0.5, 'scale');
    expect(seen() / before).toBeCloseTo(0.5, 4);
    editCamera('orthographic', (camera) => {
      camera.projection = { kind: 'orthographic', height: 40, near: 0.1, far: 500, aspect: null, shift: [0, 0] };
    });
    scaleView(0.25, 'scale again');
    expect(seen()).toBeCloseTo(10, 9);
    setHeight(-5, 'nonsense');
    expect(momentOf(currentProject()).seen.problems).toEqual([]);
    // Going ahead changes nothing that an orthographic camera would see: it closes in instead.
    setHeight(20, 'whole');
    const { eye } = frame();
    goAhead(0.1, 'ahead');
    expect(frame().eye).toEqual(eye);
    expect(seen()).toBeCloseTo(18, 9);
  });

  it('goes ahead by a share of the way to the probe', () => {
    const ahead = () => {
      const { chain } = momentOf(currentProject());
      return chain.ok ? worldToViewRuf(frame(), chain.value.world)[2] : NaN;
    };
    const before = ahead();
    goAhead(0.25, 'ahead');
    expect(ahead() / before).toBeCloseTo(0.75, 2);
  });
});

describe('the hand on a flat world', () => {
  const chart = saltmarrowChart();
  beforeEach(() => openProject(chart));
  const inPicture = fc.tuple(real(0, 1280), real(0, 720));
  /** How far off a kept focus may be: it is kept to the hundredth of a pixel or finer. */
  const fine = 0.05;

  it('keeps the world point under the pointer through any zoom', () => {
    fc.assert(
      fc.property(inPicture, real(0.01, 200), real(-180, 180), (at, zoom, turn) => {
        afresh(chart);
        turnWorld(turn);
        const world = pointUnder(at)!;
        zoomAbout(at, zoom);
        const now = pixel([world[0], world[1], 0]);
        expect(Math.abs(now[0] - at[0])).toBeLessThan(fine);
        expect(Math.abs(now[1] - at[1])).toBeLessThan(fine);
        expect(flatCamera(currentProject()).zoom).toBeCloseTo(zoom, -Math.log10(zoom) + 3);
      }),
    );
  });

  it('brings a point under a pixel, turned or not', () => {
    fc.assert(
      fc.property(inPicture, real(-300, 300), real(-300, 300), real(-180, 180), (at, x, y, turn) => {
        afresh(chart);
        turnWorld(turn);
        bringUnder([x, y], at, 'drag');
        const now = pixel([x, y, 0]);
        expect(Math.abs(now[0] - at[0])).toBeLessThan(fine);
        expect(Math.abs(now[1] - at[1])).toBeLessThan(fine);
      }),
    );
  });

  it('moves the anchor and not the picture', () => {
    fc.assert(
      fc.property(inPicture, real(-180, 180), (at, turn) => {
        afresh(chart);
        turnWorld(turn);
        const before = pixel([12, -7, 0]);
        moveAnchor(at);
        const { anchor } = flatCamera(currentProject());
        expect(Math.abs(anchor[0] - at[0])).toBeLessThanOrEqual(0.25);
        const now = pixel([12, -7, 0]);
        expect(Math.abs(now[0] - before[0])).toBeLessThan(fine);
        expect(Math.abs(now[1] - before[1])).toBeLessThan(fine);
      }),
    );
  });

  it('shows a point in the middle at a zoom', () => {
    showAt('show', [30, 40], 5);
    const v = frame().viewport;
    const [x, y] = pixel([30, 40, 0]);
    expect(x).toBeCloseTo(v.width / 2, 1);
    expect(y).toBeCloseTo(v.height / 2, 1);
    expect(flatCamera(currentProject()).zoom).toBe(5);
  });

  it('steps through whole zooms and the shares of one, up and down again', () => {
    const up: number[] = [1 / 4];
    while (up.length < 8) up.push(wholeStep(up.at(-1)!, true));
    [1 / 4, 1 / 3, 1 / 2, 1, 2, 3, 4, 5].forEach((zoom, i) => expect(up[i]).toBeCloseTo(zoom, 12));
    const down: number[] = [5];
    while (down.length < 8) down.push(wholeStep(down.at(-1)!, false));
    expect(down.reverse().map((v) => Number(v.toFixed(9)))).toEqual(up.map((v) => Number(v.toFixed(9))));
    // Between two whole ones it goes to the next, not past it.
    expect(wholeStep(2.5, true)).toBe(3);
    expect(wholeStep(2.5, false)).toBe(2);
  });

  it('does nothing while the zoom is none', () => {
    const broken = structuredClone(chart);
    flatCamera(broken).zoom = 0;
    openProject(broken);
    zoomAbout([10, 10], 3);
    bringUnder([0, 0], [5, 5], 'drag');
    expect(pointUnder([1, 1])).toBeNull();
    expect(currentProject()).toEqual(broken);
  });
});
