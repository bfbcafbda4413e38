import type { PlacedBody } from '../../../core/bodies/body';
import { reposed, type CameraFrame } from '../../../core/camera/frame';
import { anglesOfBasis, basisOfAngles } from '../../../core/camera/orientation';
import { addScaled, normalize, type Vec3 } from '../../../core/math/vec3';
import { placedAt, type MovingBody } from '../../../core/motion/bodies';
import { fieldCentres, fieldInView, fieldTree, type FieldTree } from '../../../core/visibility/field';
import { staysInView, type Stay } from '../../../core/visibility/overTime';
import { coreMotion } from '../../../formats/camera';
import type { ProjectBody } from '../../../formats/project';
import { journeyAt, type Journey } from '../../state/journey';
import type { JobModule, JobSpec } from '../../state/jobs';
import { tintByte } from '../../pictures/compose/contract';
import { fieldKey, type FieldFound } from './field';
import { marginFits } from './seen';
import type { OverTime, TestField, VisibilityState } from './kept';

interface Asked {
  readonly frame: CameraFrame;
  readonly bodies: readonly ProjectBody[];
  /** Where they rest. */
  readonly placed: ReadonlyMap<string, PlacedBody>;
  readonly over: OverTime;
  readonly flat: boolean;
  /** Where the camera goes, if it is to go its own way. */
  readonly journey: Journey | null;
}

/** When bodies are in view, and for how long it was looked at. */
export interface Stays {
  readonly span: number;
  readonly stays: readonly Stay[];
  /** Those in the view grown by the margin by which it has to be left; null where nothing is put away. */
  readonly kept: readonly Stay[] | null;
  readonly milliseconds: number;
}

/** The camera that turns or walks evenly from where it rests, at a time; null beyond the doubles. */
function movedCamera(frame: CameraFrame, over: OverTime, time: number, flat: boolean): CameraFrame | null {
  const { kind, turnRate, speed } = over;
  if (kind === 'bodies' || kind === 'journey') return frame;
  if (kind === 'walk') {
    // Level, along the heading; on a flat world to the right.
    const heading: Vec3 = flat ? frame.right : (normalize([frame.forward[0], 0, frame.forward[2]]) ?? frame.up);
    return reposed(frame, { eye: addScaled(frame.eye, heading, speed * time) });
  }
  const own = anglesOfBasis(frame);
  return reposed(frame, { basis: basisOfAngles({ ...own, yaw: own.yaw + turnRate * time }) });
}

/** Seconds between two looks. */
const step = 1 / 30;

const stays: JobSpec<VisibilityState, Asked, Stays> = {
  says: 'Looking when bodies enter and leave',
  input: ({ slice, rest, project, placed, time, flat, journey }) =>
    // At rest: what moves is followed from the beginning, whatever the clock says.
    time !== 0 || (slice.over.kind === 'turn' && flat)
      ? null
      : { frame: rest, bodies: project.bodies, placed, over: slice.over, flat, journey: slice.over.kind === 'journey' ? journey : null }, // prettier-ignore
  run: async ({ frame, bodies, placed, over, flat, journey }, control) => {
    const start = performance.now();
    const moving = bodies.map((body): MovingBody => ({ ...body, motion: body.motion && coreMotion(body.motion) }));
    const cameraThen = (time: number): CameraFrame => {
      const made = journey && journeyAt(journey, time);
      return made?.ok ? made.value : (movedCamera(frame, over, time, flat) ?? frame);
    };
    const at = (time: number) => ({
      frame: cameraThen(time),
      placed: [...placedAt(moving, placed, time).values()],
    });
    const halves = over.away === 'nothing' ? 1 : 2;
    const staysBy = (margin: number, half: number) =>
      staysInView(at, {
        ...{ span: over.seconds, step, flat, margin },
        onProgress: async (share) => {
          control.progress((half + share) / halves);
          await control.breathe();
        },
      });
    const found = await staysBy(0, 0);
    const kept = over.away === 'nothing' ? null : await staysBy(over.awayMargin, 1);
    return { span: over.seconds, stays: found, kept, milliseconds: performance.now() - start };
  },
};

interface FieldAsked {
  readonly frame: CameraFrame;
  readonly field: TestField;
  readonly margin: number;
  readonly flat: boolean;
  readonly method: VisibilityState['method'];
}

/** The tree over the last field that was asked about, by its key: it stands in the worker. */
let standing: { readonly key: string; readonly tree: FieldTree } | null = null;

const field: JobSpec<VisibilityState, FieldAsked, FieldFound> = {
  says: 'Testing the field of bodies',
  input: (now) => {
    const { slice, frame, flat } = now;
    if (!slice.field?.shown) return null;
    return { frame, field: slice.field, margin: marginFits(now) ? slice.margin : 0, flat, method: slice.method };
  },
  run: async ({ frame, field, margin, flat, method }, control) => {
    const key = fieldKey(field);
    if (standing?.key !== key) {
      // What is dragged through many boxes has a tree made for where it rests.
      await control.breathe();
      standing = { key, tree: fieldTree(fieldCentres(field)) };
      await control.breathe();
    }
    const start = performance.now();
    const tints = new Uint8Array(field.count);
    const seen = fieldInView(frame, field, standing.tree, tints, {
      ...{ margin, flat },
      bytes: {
        ...{ inside: tintByte('inside'), crosses: tintByte('crosses'), outside: tintByte('outside') },
        falseAlarm: tintByte(method === 'planes' ? 'fault' : 'outside'),
      },
    });
    return { key, tints, seen, milliseconds: performance.now() - start };
  },
};

export const jobs: JobModule['jobs'] = { stays, field };
