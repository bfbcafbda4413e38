import type { Query } from '../../../core/compute/operations';
import type { RequestCamera } from '../../../core/request/cameraSchema';
import { writeCamera } from '../../../core/request/write';
import type { ConventionCodec } from '../../../core/conventions/codec';
import { mat4 } from '../../../core/math/mat4';
import type { Vec3 } from '../../../core/math/vec3';
import type { CameraFrame } from '../../../core/camera/frame';
import { cameraInSpace, expressCamera } from '../../../formats/camera';
import { emptyReading, quickText, readPasted, type PastedReading } from '../../../formats/pasted';
import { interpretItems, type LogReading } from '../../../formats/logReading';
import type { Project } from '../../../formats/project';
import { journeyAt, type Journey } from '../../state/journey';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import type { Correction, DiagnoseState } from './kept';
import type { Asked } from './asked';
import { asked2dNow, reading2dNow } from './reading2d';

const readAtOnce = memo(readPasted);

/** The reading of a long text, as a worker answers it. */
export interface LongReading {
  readonly text: string;
  readonly reading: PastedReading;
}
/** The text that a worker has to read; null where the page reads it itself. */
export const longText = ({ slice }: Moment<DiagnoseState>): string | null =>
  slice.text.length > quickText ? slice.text : null;

/** The items of the pasted text; null while a worker reads it. */
function pastedNow(now: Moment<DiagnoseState>): PastedReading | null {
  const text = longText(now);
  if (text === null) return readAtOnce(now.slice.text);
  const answer = now.answer<LongReading>('reading');
  return answer?.text === text ? answer.reading : null;
}
/** Whether a worker is reading the pasted text. */
export const isBeingRead = (now: Moment<DiagnoseState>): boolean => pastedNow(now) === null;

const readingOf = memo(
  (
    pasted: PastedReading,
    text: string,
    corrections: readonly Correction[],
    byColumns: boolean,
    vectors: 'column' | 'row',
  ): LogReading => interpretItems(pasted, text, corrections, { byColumns, vectors }),
);

/** The reading of the pasted text in the current conventions; empty while a worker reads it. */
export function readingNow(now: Moment<DiagnoseState>): LogReading {
  const { slice, codec: e } = now;
  const pasted = pastedNow(now) ?? emptyReading;
  return readingOf(pasted, slice.text, slice.corrections, e.listsColumns, e.conventions.matrix.vectors);
}

/** How many digits are trusted. */
export const digitsNow = ({ slice }: Moment<DiagnoseState>, reading: LogReading): number =>
  slice.digits ?? reading.digits;

/** The camera that is meant, as a request says it: the project's own, or where its track has it. */
const meant = (camera: Project['camera'], moved: CameraFrame | null, e: ConventionCodec) =>
  moved ? writeCamera(moved, e) : expressCamera(cameraInSpace({ camera }), e);

const frames = ['one frame ago', 'two frames ago', 'three frames ago'] as const;
/**
 * Cameras that the engine may have used instead: this one up to three frames ago, at time 0 and without its shake, and
 * the project's others.
 */
function othersOf(cameras: Project['cameras'], journey: Journey | null, time: number, e: ConventionCodec) {
  const found: { name: string; camera: RequestCamera }[] = [];
  const add = (name: string, at: Journey, when: number) => {
    const made = journeyAt(at, when);
    if (made.ok) found.push({ name, camera: writeCamera(made.value, e) });
  };
  if (journey?.kind === 'space') {
    if (time > 0) {
      for (const [i, name] of frames.entries())
        if (time - i / 60 > 0) add(name, journey, Math.max(0, time - (i + 1) / 60));
      add('this camera at 0 s', journey, 0);
    }
    if (journey.motion.shake) add('this camera without its shake', withoutShake(journey), time);
  }
  for (const one of cameras)
    if (one.kind === '3d') found.push({ name: one.name, camera: expressCamera(one, e) as RequestCamera });
  return found.slice(0, 64);
}
const withoutShake = (journey: Extract<Journey, { kind: 'space' }>): Journey => ({
  ...journey,
  motion: { ...journey.motion, shake: null },
});

/** One object for as long as what it is made of is the same: for another a job is run anew. */
const askedFor = memo(
  (
    e: ConventionCodec,
    { width, height, devicePixelRatio }: Project['viewport'],
    camera: Project['camera'],
    cameras: Project['cameras'],
    /** Whether there is a camera in space that is meant. */
    held: boolean,
    moved: CameraFrame | null,
    journey: Journey | null,
    time: number,
    reading: LogReading,
    digits: number,
    others: boolean,
  ): Asked | null => {
    const given = reading.given!;
    const alone = Object.keys(given).some((name) => name !== 'points');
    if (!held && !alone) return null;
    const queries = [
      ...(held
        ? [
            {
              ...{ id: 'the pasted numbers', op: 'diagnose', given, digits },
              others: others ? othersOf(cameras, journey, time, e) : [],
              ...(devicePixelRatio !== 1 && { devicePixelRatio }),
              ...(reading.listingUnknown.length > 0 && { listingUnknown: reading.listingUnknown }),
            },
          ]
        : []),
      ...(alone ? [{ id: 'the pasted numbers by themselves', op: 'identify', given, digits }] : []),
    ] as Query[];
    const request = {
      ...{ astrolabe: 1, conventions: e.conventions as Project['conventions'] },
      ...{ viewport: { x: 0, y: 0, width, height }, ...(held && { camera: meant(camera, moved, e) }), queries },
    } as Asked['request'];
    return { mark: JSON.stringify(request), request };
  },
);

/** The request that answers for the sheet; null where there is nothing to ask. */
export function askedNow(now: Moment<DiagnoseState>): Asked | null {
  if (now.flat && reading2dNow(now).given) return asked2dNow(now);
  const { project, codec: e, frame, rest, journey, time, slice } = now;
  const reading = readingNow(now);
  if (!reading.given) return null;
  const held = !now.flat && !now.seen.problems.length;
  const moved = frame === rest ? null : frame;
  const at = journey ? time : 0;
  return askedFor(e, project.viewport, project.camera, project.cameras, held, moved, journey, at, reading, digitsNow(now, reading), slice.others); // prettier-ignore
}

/** The given matrices for column vectors, and the points, as the core takes them. */
export function toldOf(given: NonNullable<LogReading['given']>, e: ConventionCodec, digits: number) {
  const { points = [], ...lists } = given;
  const read = Object.entries(lists).map(([name, list]) => [name, e.fromList(mat4(list as number[]))] as const);
  return {
    matrices: Object.fromEntries(read),
    points: points.map(({ world, screen, depth }) => ({ world: world as Vec3, screen, depth: depth ?? null })),
    digits,
  };
}
