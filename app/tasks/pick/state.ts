import * as z from 'zod';
import { vec2Schema, vec3Schema } from '../../../core/compute/valueSchemas';
import type { Query } from '../../../core/compute/schema';
import { writeCamera } from '../../../core/compute/write';
import { pictureToPixel } from '../../../core/convert/project';
import { faultySource, rayFaults, type RayFault } from '../../../core/pick/faults';
import type { Vec3 } from '../../../core/math/vec3';
import type { Project } from '../../../formats/project';
import type { Slice } from '../../state/slices';
import { lookThrough, pixelNow, reachOf, termsOf } from './rays';

/** What the sweep's picture is tinted by. */
export type SweepBy = 'body' | 'distance' | 'normal' | 'boxes';

export interface PickState {
  /** Where the ray goes through: under the pointer, the middle of the view, or the pixel that was clicked or typed. */
  at: 'pointer' | 'centre' | 'pixel';
  backFaces: boolean;
  all: boolean;
  by: SweepBy;
  muzzle: [number, number, number];
  /** Fires along the gaze rather than at the target. */
  alongGaze: boolean;
  /** What is in the picture's camera: degrees, world units, degrees a second, world units a second. */
  shake: { yaw: number; pitch: number; roll: number; offset: [number, number] };
  recoil: number;
  turnRate: number;
  velocity: [number, number, number];
  frameRate: number;
  /** Which of the project's screens has the other aspect. */
  screen: number;
  /** The fault whose ray is drawn beside the right one. */
  fault: RayFault | null;
}

const boolean = z.boolean();
const number = z.number();
const positive = number.positive();

/** Where the gun of the demo stands, and elsewhere one at the height of a hand. */
const muzzleOf = ({ guide, ground, camera }: Project): [number, number, number] =>
  camera.kind === '2d' ? [0, 0, 0] : guide === 'harbour' ? [-36, 4.4, -21] : [0, (ground?.height ?? 0) + 1.5, 0];

/** What Pick keeps. Everything is in canonical space. */
export const slice: Slice<PickState> = {
  version: 1,
  schema: z.object({
    at: z.enum(['pointer', 'centre', 'pixel']),
    backFaces: boolean,
    all: boolean,
    by: z.enum(['body', 'distance', 'normal', 'boxes']),
    muzzle: vec3Schema,
    alongGaze: boolean,
    shake: z.object({ yaw: number, pitch: number, roll: number, offset: vec2Schema }),
    recoil: number,
    turnRate: number,
    velocity: vec3Schema,
    frameRate: positive,
    screen: z.int().nonnegative(),
    fault: z.enum(rayFaults).nullable(),
  }) as z.ZodType<PickState>,
  initial: (project) => ({
    ...{ at: 'pixel', backFaces: false, all: false, by: 'body', muzzle: muzzleOf(project), alongGaze: false },
    ...(project.camera.kind === '2d'
      ? { shake: { yaw: 0, pitch: 0, roll: 1, offset: [0.6, 0.3] }, velocity: [30, 0, 0] }
      : { shake: { yaw: 0.8, pitch: -0.5, roll: 1.2, offset: [0.05, 0.03] }, velocity: [0, 0, 0] }),
    ...{ recoil: 1.5, turnRate: 90, frameRate: 60, screen: 0, fault: null },
  }),
  reread: (kept, from, to) => {
    const carried = (p: Vec3): [number, number, number] => [...to.fromWorld(from.toWorld(p))];
    return { ...kept, muzzle: carried(kept.muzzle), velocity: carried(kept.velocity) };
  },
  queries: (kept, now) => {
    const { codec: e, frame, flat } = now;
    const [a, u] = pixelNow(now);
    const pixels = [[...e.toScreen(frame.viewport, a, u)] as [number, number]];
    const { backFaces, all } = kept;
    const pick: Query = { id: 'picked', op: 'pick', pixels, backFaces, all, statistics: true };
    if (flat) return [pick];
    const muzzle = [...e.toWorld(kept.muzzle)] as [number, number, number];
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
