import type { Query } from '../../../core/compute/operations';
import { writeCamera } from '../../../core/request/write';
import { pictureToPixel } from '../../../core/convert/project';
import { radians } from '../../../core/math/angle';
import { faultySource } from '../../../core/pick/faults';
import { writeValue } from '../../../core/quantities/convert';
import type { Project } from '../../../formats/project';
import type { Slice } from '../../state/slices';
import { pickState, type PickState } from './kept';
import { lookThrough, pixelNow, reachOf, termsOf } from './rays';

/** Where the gun of the demo stands, and elsewhere one at the height of a hand. */
const muzzleOf = ({ guide, ground, camera }: Project): [number, number, number] =>
  camera.kind === '2d' ? [0, 0, 0] : guide === 'harbour' ? [-36, 4.4, -21] : [0, (ground?.height ?? 0) + 1.5, 0];

/** Version 1 had its angles in degrees. */
function toRadians(older: unknown): unknown {
  const { shake, recoil, turnRate, ...rest } = older as PickState;
  const { yaw, pitch, roll, offset } = shake;
  return {
    ...rest,
    shake: { yaw: radians(yaw), pitch: radians(pitch), roll: radians(roll), offset },
    recoil: radians(recoil),
    turnRate: radians(turnRate),
  };
}

export const slice: Slice<PickState> = {
  version: 2,
  migrate: [toRadians],
  schema: pickState,
  initial: (project) => ({
    ...{ at: 'pixel', backFaces: false, all: false, by: 'body', muzzle: muzzleOf(project), alongGaze: false },
    ...(project.camera.kind === '2d'
      ? { shake: { yaw: 0, pitch: 0, roll: radians(1), offset: [0.6, 0.3] }, velocity: [30, 0, 0] }
      : {
          shake: { yaw: radians(0.8), pitch: radians(-0.5), roll: radians(1.2), offset: [0.05, 0.03] },
          velocity: [0, 0, 0],
        }),
    ...{ recoil: radians(1.5), turnRate: radians(90), frameRate: 60, screen: 0, fault: null },
  }),
  queries: (kept, now) => {
    const { codec: e, frame, world } = now;
    const [a, u] = pixelNow(now);
    const pixels = [[...e.toScreen(frame.viewport, a, u)] as [number, number]];
    const { backFaces, all } = kept;
    const pick: Query = { id: 'picked', op: 'pick', pixels, backFaces, all, statistics: true };
    if (!world.hasDepth) return [pick];
    const { muzzle } = writeValue(pickState, kept, now);
    return [
      { id: 'picked ray', op: 'rays', pixels },
      pick,
      { id: 'aimed', op: 'aim', muzzle, pixel: pixels[0]!, reach: reachOf(now) },
      // The bench: what comes of each other camera's ray through the same pixel.
      ...(['shakeLeftOut', 'recoilLeftOut', 'frameBefore', 'otherAspect', 'shiftLeftOut'] as const).flatMap(
        (fault): Query[] => {
          const source = faultySource(frame, pictureToPixel(frame, a, u), fault, termsOf(now));
          const range = lookThrough(now, [a, u]).range;
          if (!source || !(range > 0)) return [];
          return [{ id: `ray by ${fault}`, op: 'compareCameras', camera: writeCamera(source.frame, e), pixels, range }];
        },
      ),
    ];
  },
};
