import type { PlacedBody } from '../../../core/bodies/body';
import { reposed, type CameraFrame } from '../../../core/camera/frame';
import { anglesOfBasis, basisOfAngles } from '../../../core/camera/orientation';
import { radians } from '../../../core/math/angle';
import { addScaled, normalize, type Vec3 } from '../../../core/math/vec3';
import { placedAt, type MovingBody } from '../../../core/motion/bodies';
import { staysInView, type Stay } from '../../../core/visibility/overTime';
import { coreMotion } from '../../../formats/camera';
import type { ProjectBody } from '../../../formats/project';
import type { JobModule, JobSpec } from '../../state/jobs';
import type { OverTime, VisibilityState } from './state';

interface Asked {
  readonly frame: CameraFrame;
  readonly bodies: readonly ProjectBody[];
  /** Where they rest. */
  readonly placed: ReadonlyMap<string, PlacedBody>;
  readonly over: OverTime;
  readonly flat: boolean;
}

/** When bodies are in view, and for how long it was looked at. */
export interface Stays {
  readonly span: number;
  readonly stays: readonly Stay[];
  readonly milliseconds: number;
}

/** The camera that turns or walks evenly from where it rests, at a time; null beyond the doubles. */
function movedCamera(frame: CameraFrame, over: OverTime, time: number, flat: boolean): CameraFrame | null {
  const { kind, turnRate, speed } = over;
  if (kind === 'bodies') return frame;
  if (kind === 'walk') {
    // Level, along the heading; on a flat world to the right.
    const heading: Vec3 = flat ? frame.right : (normalize([frame.forward[0], 0, frame.forward[2]]) ?? frame.up);
    return reposed(frame, { eye: addScaled(frame.eye, heading, speed * time) });
  }
  const own = anglesOfBasis(frame);
  return reposed(frame, { basis: basisOfAngles({ ...own, yaw: own.yaw + radians(turnRate) * time }) });
}

/** Seconds between two looks. */
const step = 1 / 30;

const stays: JobSpec<VisibilityState, Asked, Stays> = {
  says: 'Looking when bodies enter and leave',
  input: ({ slice, rest, project, placed, time, flat }) =>
    // At rest: what moves is followed from the beginning, whatever the clock says.
    time !== 0 || (slice.over.kind === 'turn' && flat)
      ? null
      : { frame: rest, bodies: project.bodies, placed, over: slice.over, flat },
  run: async ({ frame, bodies, placed, over, flat }, control) => {
    const start = performance.now();
    const moving = bodies.map((body): MovingBody => ({ ...body, motion: body.motion && coreMotion(body.motion) }));
    const found = await staysInView(
      (time) => ({
        frame: movedCamera(frame, over, time, flat) ?? frame,
        placed: [...placedAt(moving, placed, time).values()],
      }),
      {
        ...{ span: over.seconds, step, flat },
        onProgress: async (share) => {
          control.progress(share);
          await control.breathe();
        },
      },
    );
    return { span: over.seconds, stays: found, milliseconds: performance.now() - start };
  },
};

export const jobs: JobModule['jobs'] = { stays };
