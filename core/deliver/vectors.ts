import { readRequest, type ProblemDocument } from '../compute/readRequest';
import { createEngine2d } from '../diagnose/engine2d';
import type { Vec2, Vec3 } from '../math/vec3';
import { detectionsOf } from './detections';
import { answer3d } from './vectorAnswers';
import { vectorCamera, type VectorCamera } from './vectorCamera';
import { inputs3d, type VectorInput } from './vectorInputs';
import type { DetectedFault, VectorRow } from './vectorRow';
import { scale3d } from './vectorScale';
import { answer2d, inputs2d, scale2d } from './vectors2d';

/** Test vectors: a request of one camera, and what an engine's functions are to give for it. */
export interface Vectors {
  readonly astrolabeVectors: 1;
  /** The camera and its conventions, without queries. */
  readonly request: unknown;
  readonly rows: readonly VectorRow[];
  /** Faults that change no number of this camera. Absent in files of older versions. */
  readonly undetected?: readonly DetectedFault[];
}

/** Points that a request asks about itself: those of its `worldToScreen` queries and the positions of its bodies. */
function ownPoints(given: unknown, size: 2 | 3): (readonly number[])[] {
  if (!readRequest(given).ok) return [];
  const { queries = [], bodies = [] } = given as {
    queries?: readonly { op: string; points?: readonly (readonly number[])[] }[];
    bodies?: readonly { position?: readonly number[] }[];
  };
  const asked = queries.flatMap(({ op, points }) => (op === 'worldToScreen' ? (points ?? []) : []));
  const placed = bodies.flatMap(({ position }) => (position ? [position] : []));
  return [...asked, ...placed].filter((point) => point.length === size).slice(0, mostOwn);
}
/** The most points of a request that become rows. */
const mostOwn = 64;

function rowsOf(camera: VectorCamera, count: number, seed: number): VectorRow[] {
  const rowOf = ({ id, kind, input }: VectorInput, expected: readonly number[] | null, scale: (expected: readonly number[]) => readonly number[]): VectorRow => ({ id, kind, input, expected, ...(expected && { scale: scale(expected) }) }); // prettier-ignore
  if (camera.isFlat) {
    const { context } = camera;
    const engine = createEngine2d(context, []);
    const own = ownPoints(camera.given, 2) as unknown as Vec2[];
    return inputs2d(context, own, count, seed).map(
      (row) =>
      rowOf(row, answer2d(engine, row.kind, row.input, context), (expected) => scale2d(context, row.kind, row.input, expected)), // prettier-ignore
    );
  }
  const { context } = camera;
  const own = ownPoints(camera.given, 3) as unknown as Vec3[];
  return inputs3d(context, own, count, seed).flatMap((row): VectorRow[] => {
    const expected = answer3d(context, row.kind, row.input);
    if (!expected && row.kind !== 'worldToScreen') return [];
    return [rowOf(row, expected, (right) => scale3d(context, row.kind, row.input, right))];
  });
}

/**
 * Computes test vectors for the camera of a request: its matrices; points through the whole depth range with their
 * pixels, the way back and rays; planes, culling, billboards, spawning, dolly zoom, following and sort keys
 * (`docs/deliver.md`). Points that the request asks about come first.
 *
 * @param given - a compute request, any JSON value
 * @param count - points spread over the picture
 * @param seed - other seeds give other inputs
 * @returns the vectors, each row with the faults that it detects, or the problems of the request
 */
export function vectorsOf(
  given: unknown,
  count: number,
  seed: number,
): { ok: true; vectors: Vectors } | { ok: false; problem: ProblemDocument } {
  const made = vectorCamera(given);
  if (!made.ok) return made;
  const request = { ...(given as object), bodies: [], queries: [] };
  // Numbers beyond single precision or doubles have no row.
  const rows = rowsOf(made.camera, count, seed).filter(({ input, expected }) =>
    [...input, ...(expected ?? [])].every(Number.isFinite),
  );
  const { detected, undetected } = detectionsOf(made.camera, rows);
  return {
    ok: true,
    vectors: {
      astrolabeVectors: 1,
      request,
      rows: rows.map((row, i) => ({ ...row, detects: detected[i]! })),
      undetected,
    },
  };
}
