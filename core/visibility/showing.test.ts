import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies, type Body, type Shape } from '../bodies/body';
import { frameFov, frameOf, pictureShape, reposed, type CameraFrame } from '../camera/frame';
import { anglesOfBasis, basisOfAngles } from '../camera/orientation';
import { degrees, radians } from '../math/angle';
import { addScaled, sub, scale, type Vec3 } from '../math/vec3';
import { askUntil } from '../testing/askUntil';
import { runs, soaks } from '../testing/seed';
import { showingChanges, type ShowingChange } from './showing';
import { visibility } from './visibility';
import { whyUnseen } from './whyNot';

interface Lens {
  readonly near?: number;
  readonly far?: number | null;
  readonly fov?: number;
  readonly height?: number;
}
const viewport = { x: 0, y: 0, width: 640, height: 360 };
function camera(yaw: number, pitch: number, roll: number, lens: Lens = {}): CameraFrame {
  const { near = 1, far = 60, fov = 0.8, height } = lens;
  const made = frameOf(
    {
      position: [0, 2, 0],
      orientation: { kind: 'angles', yaw, pitch, roll },
      projection: height
        ? { kind: 'orthographic', near, far: far!, size: { height } }
        : { kind: 'perspective', near, far, lens: { verticalFov: fov } },
    },
    viewport,
  );
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
}
function placed(shape: Shape, position: Vec3) {
  const body: Body = {
    id: 'b',
    rotation: [0, 0, 0, 1],
    scale: [1, 1, 1],
    parent: null,
    castsShadow: true,
    shape,
    position,
  };
  const made = placeBodies([body]);
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.placed[0]!;
}
type Placed = ReturnType<typeof placed>;
const isSeen = (frame: CameraFrame, body: Placed) =>
  visibility(frame, [body], { method: 'exact' })[0]!.verdict !== 'outside';

/** The camera with a share of a change made: all of it by 1. */
function changed(frame: CameraFrame, change: ShowingChange, share: number): CameraFrame {
  const { roll } = anglesOfBasis(frame);
  const scaled = (k: number) => {
    const { left, right, bottom, top } = frame.extents;
    return reposed(frame, { extents: { left: left * k, right: right * k, bottom: bottom * k, top: top * k } })!;
  };
  switch (change.kind) {
    case 'turn': {
      // Along the great circle between the two view directions.
      const to = basisOfAngles({ yaw: change.yaw, pitch: change.pitch, roll }).forward;
      const { angle } = change;
      const k = [Math.sin(angle * (1 - share)) / Math.sin(angle), Math.sin(angle * share) / Math.sin(angle)] as const;
      const [x, y, z] = [0, 1, 2].map((i) => frame.forward[i]! * k[0] + to[i]! * k[1]) as [number, number, number];
      return reposed(frame, { basis: basisOfAngles({ yaw: Math.atan2(x, -z), pitch: Math.asin(y), roll }) })!;
    }
    case 'back':
    case 'step':
    case 'closer':
      return reposed(frame, { eye: addScaled(frame.eye, sub(change.eye, frame.eye), share) })!;
    case 'widen': {
      const own = frameFov(frame)!;
      return scaled(Math.tan((own + (change.verticalFov - own) * share) / 2) / Math.tan(own / 2));
    }
    case 'enlarge': {
      const own = pictureShape(frame).height;
      return scaled((own + (change.height - own) * share) / own);
    }
    case 'near':
    case 'far': {
      const own = frame[change.kind]!;
      const limit = own + ((change.kind === 'near' ? change.near : change.far) - own) * share;
      const k = change.kind === 'near' && frame.kind === 'perspective' ? limit / frame.near : 1;
      const { left, right, bottom, top } = frame.extents;
      return {
        ...frame,
        [change.kind]: limit,
        extents: { left: left * k, right: right * k, bottom: bottom * k, top: top * k },
      };
    }
  }
}

const number = (min: number, max: number) =>
  fc.integer({ min: Math.ceil(min * 16), max: Math.floor(max * 16) }).map((v) => v / 16);
const shapes = fc.oneof(
  number(0.5, 3).map((radius): Shape => ({ kind: 'sphere', radius })),
  fc.tuple(number(0.5, 6), number(0.5, 6), number(0.5, 6)).map((size): Shape => ({ kind: 'box', size })),
);
const poses = { yaw: number(-3, 3), pitch: number(-1, 1), roll: number(-1, 1) };
const around = fc.tuple(number(-50, 50), number(-25, 25), number(-90, 50));
/** Bodies round a camera in perspective, round an orthographic one, and ahead of one beyond far. */
const cases = fc.oneof(
  fc.record({ shape: shapes, at: around, ...poses, parallel: fc.constant(false) }),
  fc.record({ shape: shapes, at: around, ...poses, parallel: fc.constant(true) }),
  fc.record({
    shape: shapes,
    at: fc.tuple(number(-9, 9), number(-5, 9), number(-90, -70)),
    yaw: number(-0.2, 0.2),
    pitch: number(-0.1, 0.1),
    roll: poses.roll,
    parallel: fc.constant(false),
  }),
);
const set = ({ shape, at, yaw, pitch, roll, parallel }: typeof cases extends fc.Arbitrary<infer T> ? T : never) => {
  const frame = camera(yaw, pitch, roll / 4, parallel ? { height: 20, near: 0, far: 60 } : {});
  const body = placed(shape, at);
  const why = whyUnseen(frame, body, [body]);
  return { frame, body, changes: why ? showingChanges(frame, body, why) : [] };
};

describe('the least change that shows a body', () => {
  it('shows it, and at 99 % does not', () => {
    const least = runs(18);
    const kinds = new Map(['turn', 'back', 'widen', 'enlarge', 'far'].map((kind) => [kind, 0]));
    askUntil(cases, kinds.size * least, (one) => {
      const { frame, body, changes } = set(one);
      let counted = 0;
      for (const change of changes) {
        if (change.kind === 'closer') continue;
        const before = kinds.get(change.kind) ?? least;
        if (before < least) counted++;
        kinds.set(change.kind, before + 1);
        expect(isSeen(changed(frame, change, 1), body), JSON.stringify(change)).toBe(true);
        // A hundredth of a degree is more than 1 % of a small angle.
        const angle =
          change.kind === 'turn'
            ? change.angle
            : change.kind === 'widen'
              ? change.verticalFov - frameFov(frame)!
              : null;
        if (angle === null || angle > radians(2))
          expect(isSeen(changed(frame, change, 0.99), body), `99 % of ${JSON.stringify(change)}`).toBe(false);
      }
      return counted;
    });
  });

  it('is the least turn over all directions, to a hundredth of a degree', () => {
    askUntil(cases, soaks ? 60 : 12, (one) => {
      const { frame, body, changes } = set({ ...one, parallel: false });
      const change = changes.find(({ kind }) => kind === 'turn');
      if (change?.kind !== 'turn' || change.angle > radians(60)) return 0;
      const angles = anglesOfBasis(frame);
      const { right, up } = basisOfAngles({ ...angles, roll: 0 });
      const less = change.angle - radians(0.03);
      if (less <= 0) return 0;
      for (let i = 0; i < 180; i++) {
        const direction = (i / 90) * Math.PI;
        const way = addScaled(scale(right, Math.cos(direction)), up, Math.sin(direction));
        for (const angle of [less, less * 0.9, less * 0.7]) {
          const [x, y, z] = addScaled(scale(frame.forward, Math.cos(angle)), way, Math.sin(angle));
          const basis = basisOfAngles({ yaw: Math.atan2(x, -z), pitch: Math.asin(y), roll: angles.roll });
          expect(
            isSeen(reposed(frame, { basis })!, body),
            `${degrees(angle)}° towards ${degrees(direction)}° of ${degrees(change.angle)}°`,
          ).toBe(false);
        }
      }
      return 1;
    });
  });

  it('of a body on the axis beyond far is far, of one before near is near, of a small one a step closer', () => {
    const kinds = (body: Placed, frame = camera(0, 0, 0)) =>
      showingChanges(frame, body, whyUnseen(frame, body, [body])!).map(({ kind }) => kind);
    expect(kinds(placed({ kind: 'box', size: [2, 2, 2] }, [0, 2, -90]))).toEqual(['far']);
    expect(kinds(placed({ kind: 'box', size: [0.2, 0.2, 0.2] }, [0, 2, -0.5]))[0]).toBe('near');
    expect(kinds(placed({ kind: 'sphere', radius: 0.01 }, [0, 2, -50]))).toEqual(['closer']);
    expect(kinds(placed({ kind: 'quad', size: [2, 2] }, [0, 2, -10]), camera(Math.PI, 0, 0))).toContain('turn');
  });

  it('is found for a mesh of many points too', () => {
    const positions = Array.from({ length: 3000 }, (_, i) => Math.sin(i * 12.9898) * 3);
    const indices = Array.from({ length: 2997 }, (_, i) => Math.floor(i / 3) + (i % 3));
    const body = placed({ kind: 'mesh', positions, indices: indices.slice(0, 2991) } as Shape, [40, 5, -20]);
    const frame = camera(0, 0, 0);
    const [turn] = showingChanges(frame, body, whyUnseen(frame, body, [body])!);
    expect(turn!.kind).toBe('turn');
    expect(isSeen(changed(frame, turn!, 1), body)).toBe(true);
    expect(isSeen(changed(frame, turn!, 0.99), body)).toBe(false);
  });
});
