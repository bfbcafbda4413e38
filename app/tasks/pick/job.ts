import type { Sweep, LookedAt, RayTested } from './swept';
import type { PlacedBody } from '../../../core/bodies/body';
import type { Vec2 } from '../../../core/math/vec3';
import type { CameraFrame } from '../../../core/camera/frame';
import { linearDeterminant } from '../../../core/math/mat4';
import { leftOutFaces, paint, worldTriangles } from '../../../core/order/paint';
import { lookedAtIn, sceneTree, type SceneTree } from '../../../core/pick/sceneTree';
import { emptySweep, lookedAtRows, sweepDifference, sweepRows, sweepTile } from '../../../core/pick/sweep';
import type { JobModule, JobSpec } from '../../state/jobs';
import { memo, remembered } from '../../state/memo';
import { packPlacedList, unpackPlacedList } from '../../state/packing';
import { bodiesOf } from '../../state/bodyList';
import type { PickState } from './kept';
import { pixelNow } from './rays';
import { isLarge, sweptMark } from './swept';

interface Asked {
  /** What picture it is of, on any thread. */
  readonly mark: number;
  readonly frame: CameraFrame;
  readonly placed: readonly PlacedBody[];
  readonly backFaces: boolean;
  /** Another number says that bodies are others, or stand elsewhere. */
  readonly revision: number;
}

/** The sheet's ray, the same pair for the same place. */
const pair = memo((a: number, u: number): Vec2 => [a, u]);
const rayOf = (now: Parameters<typeof pixelNow>[0]): Vec2 => pair(...pixelNow(now));

let lastRevision = 0;
const revisionOf = remembered((of: object): number => {
  void of;
  return ++lastRevision;
});

/** The tree of the bodies that were last asked about: while the camera alone moves it stays. */
let kept: Scene | null = null;
interface Scene {
  readonly revision: number;
  readonly placed: readonly PlacedBody[];
  readonly tree: SceneTree;
}
function sceneFor({ revision, placed }: Asked): Scene {
  if (kept?.revision !== revision) {
    const own = unpackPlacedList(placed);
    kept = { revision, placed: own, tree: sceneTree(own) };
  }
  return kept;
}

/** The most pixels of a whole sweep. */
const mostPixels = 2 ** 21;
const sizeOf = ({ viewport: { width, height } }: CameraFrame, per: number) => {
  const k = Math.min(1 / per, Math.sqrt(mostPixels / (width * height)));
  return { width: Math.max(1, Math.round(width * k)), height: Math.max(1, Math.round(height * k)) };
};

const input = (now: Parameters<typeof sweptMark>[0]): Asked | null =>
  now.flat
    ? null
    : {
        mark: sweptMark(now),
        frame: now.frame,
        placed: packPlacedList(bodiesOf(now)),
        backFaces: now.slice.backFaces,
        revision: revisionOf(now.placed),
      };

const compact = (swept: ReturnType<typeof emptySweep>) => ({
  body: Int16Array.from(swept.body),
  distance: swept.distance,
  normal: Int8Array.from(swept.normal, (v) => Math.round(127 * v)),
  hits: swept.body.reduce((sum, v) => sum + (v < 0 ? 0 : 1), 0),
});

const coarse: JobSpec<PickState, Asked, Sweep> = {
  says: 'Sweeping the picture, coarsely',
  input,
  run: (asked) => {
    const { mark, frame, backFaces } = asked;
    const start = performance.now();
    const { width, height } = sizeOf(frame, 16);
    const swept = emptySweep(width, height);
    sweepRows(frame, sceneFor(asked).tree, swept, 0, height, backFaces);
    return {
      ...{ mark, width, height, ...compact(swept), where: new Uint8Array(0), differing: 0, offSilhouette: 0 },
      milliseconds: performance.now() - start,
    };
  },
};

const whole: JobSpec<PickState, Asked, Sweep> = {
  says: 'Sweeping the picture',
  input,
  rest: 160,
  run: async (asked, control) => {
    const { mark, frame, backFaces } = asked;
    const start = performance.now();
    const { width, height } = sizeOf(frame, 1);
    const swept = emptySweep(width, height);
    const { tree, placed } = sceneFor(asked);
    await control.breathe();
    for (let row = 0; row < height; row += 2 * sweepTile) {
      sweepRows(frame, tree, swept, row, row + 2 * sweepTile, backFaces);
      control.progress((0.9 * row) / height);
      await control.breathe();
    }
    const milliseconds = performance.now() - start;
    const triangles = worldTriangles(placed);
    // The faces that a pick passes over are not painted either: by outward, which a mirroring turns over.
    const leftOut = backFaces
      ? null
      : Uint8Array.from(placed, ({ toWorld }) =>
          linearDeterminant(toWorld) < 0 ? leftOutFaces.front : leftOutFaces.back,
        );
    const painted = paint(frame, triangles, { width, height, order: null, leftOut });
    await control.breathe();
    const bodies = Int32Array.from(painted.triangle, (i) => (i < 0 ? -1 : triangles.body[i]!));
    const { count, offSilhouette, where } = sweepDifference(swept, bodies);
    return { mark, width, height, ...compact(swept), where, differing: count, offSilhouette, milliseconds };
  },
};

const boxes: JobSpec<PickState, Asked, LookedAt> = {
  says: 'Counting what rays look at',
  input: (now) => (now.slice.by === 'boxes' ? input(now) : null),
  rest: 160,
  run: async (asked, control) => {
    const { mark, frame } = asked;
    const { width, height } = sizeOf(frame, 2);
    const { tree } = sceneFor(asked);
    const found = new Uint16Array(width * height);
    const surfaces = new Uint16Array(width * height);
    for (let row = 0; row < height; row += 8) {
      lookedAtRows(frame, tree, width, height, row, row + 8, found, surfaces);
      control.progress(row / height);
      await control.breathe();
    }
    const mean = (of: Uint16Array) => of.reduce((sum, v) => sum + v, 0) / of.length;
    const most = found.reduce((a, v) => Math.max(a, v), 0);
    return { mark, width, height, boxes: found, mean: mean(found), most, surfaces: mean(surfaces) };
  },
};
const tested: JobSpec<PickState, Asked & { readonly at: Vec2; readonly all: boolean }, RayTested> = {
  says: 'Counting what the ray looks at',
  input: (now) => {
    const asked = isLarge(bodiesOf(now)) ? input(now) : null;
    return asked && { ...asked, at: rayOf(now), all: now.slice.all };
  },
  run: (asked) => {
    const { mark, frame, at, backFaces, all } = asked;
    return { mark, at, all, ...lookedAtIn(sceneFor(asked).tree, frame, at, backFaces, all) };
  },
};

export const jobs: JobModule['jobs'] = { coarse, whole, boxes, tested };
