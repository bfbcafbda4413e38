import { intendedOf } from '../diagnose/operations';
import { readSetUp } from '../compute/readRequest';
import { createEngine2d, instancesOf2d } from '../diagnose/engine2d';
import { fixes2d } from '../diagnose/fixes2d';
import { cameraFaultWays } from './cameraFaults';
import { checkedRow } from './checkedRows';
import { functionFaultWays, functionFaultWays2d } from './functionFaults';
import { answer3d } from './vectorAnswers';
import { answer2d } from './vectors2d';
import type { VectorCamera } from './vectorCamera';
import type { VectorKind } from './vectorKinds';
import type { FaultWay } from './faultWay';
import type { DetectedFault, VectorRow } from './vectorRow';

/** Returns every way in which an engine of this camera can be wrong: faults of the camera, then of single functions. */
export function faultWays(camera: VectorCamera): readonly FaultWay<DetectedFault>[] {
  if (camera.isFlat) {
    const { context } = camera;
    const right = createEngine2d(context, []);
    const ofCamera = instancesOf2d(context, null).map((one): FaultWay<DetectedFault> => {
      const engine = createEngine2d(context, [one]);
      return {
        ...{ name: one.fault, fix: fixes2d[one.fault], isOfCamera: true },
        answer: (kind, input) => answer2d(engine, kind, input, context),
      };
    });
    const answer = (kind: VectorKind, input: readonly number[]) => answer2d(right, kind, input, context);
    const ofFunctions = functionFaultWays2d({ viewport: context.viewport, codec: context.codec, answer });
    return [...ofCamera, ...ofFunctions];
  }
  const { context, given } = camera;
  const read = readSetUp(given);
  if (!read.ok || 'kind' in read.resolved.camera) throw new Error('a 3D camera is read as one');
  const { camera: intended, frame, codec } = read.resolved;
  return [...cameraFaultWays(intendedOf(intended, frame, codec, null), context), ...functionFaultWays(context)];
}

/** The share of a number's scale that an answer must differ by for a row to detect a fault. */
const detectedShare = 1e-4;

/** What rows of test vectors detect. */
export interface Detections {
  /** The faults that each row detects, in the order of the rows. */
  readonly detected: readonly (readonly DetectedFault[])[];
  /** Faults that no row detects: they change no number of this camera. */
  readonly undetected: readonly DetectedFault[];
}

/**
 * Finds the faults that each row detects: an engine that commits one answers the row wrongly by more than ten times
 * the usual tolerance. Faults of functions count where the camera can have them.
 */
export function detectionsOf(camera: VectorCamera, rows: readonly VectorRow[]): Detections {
  const detected = rows.map(() => new Set<DetectedFault>());
  const all = new Set<DetectedFault>();
  for (const way of faultWays(camera)) {
    // Ratios of device pixels are not a number of the camera: 2 stands for all of them.
    all.add(way.name);
    rows.forEach((row, i) => {
      if (way.kinds && !way.kinds.includes(row.kind)) return;
      if (detected[i]!.has(way.name)) return;
      const answer = way.answer(row.kind, row.input);
      if (answer === undefined) return;
      if (!checkedRow(row, answer, detectedShare).ok) detected[i]!.add(way.name);
    });
  }
  const seen = new Set(detected.flatMap((names) => [...names]));
  return { detected: detected.map((names) => [...names]), undetected: [...all].filter((name) => !seen.has(name)) };
}

/** Returns the right answers to rows: those of an engine without faults. */
export function rightAnswer(camera: VectorCamera): (kind: VectorKind, input: readonly number[]) => readonly number[] | null {
  if (!camera.isFlat) return (kind, input) => answer3d(camera.context, kind, input);
  const engine = createEngine2d(camera.context, []);
  return (kind, input) => answer2d(engine, kind, input, camera.context);
} // prettier-ignore
