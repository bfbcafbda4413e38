import { answerQuery, computeLists } from '../compute/answerQuery';
import { operationNamed, type QueryOf } from '../compute/operations';
import { readQuery } from '../compute/readQuery';
import { readSetUp } from '../compute/readRequest';
import { enginePlaneKernel, enginePointKernel, pixelRays, unprojectPoints } from '../kernels/engineKernel';
import { classifyMany, projectMany } from '../kernels/many';
import { outsideBit, type PointKernel } from '../kernels/points';
import { sphereVerdict } from '../kernels/spheres';
import { trackSchema, type WrittenTrack } from '../motion/trackSchema';
import { readValue } from '../quantities/convert';
import type { ErrorCode, Problem } from '../reasons';
import { setupAlong } from '../request/along';
import type { Setup as Resolved } from '../request/setup';
import type { Answers, Queries, Setup, Track } from './types';

export { outsideBit, sphereVerdict };

/**
 * An answer, or why there is none: a code of docs/compute.md and a sentence. The code `invalid` is a query that does not
 * fit its operation; its problems are listed with their paths.
 */
export type Found<T> =
  | ({ readonly ok: true } & T)
  | { readonly ok: false; readonly code: ErrorCode | 'invalid'; readonly message: string; readonly problems: readonly Problem[] }; // prettier-ignore

const notFound = (code: ErrorCode | 'invalid', message: string, problems: readonly Problem[] = []) =>
  ({ ok: false, code, message, problems }) as const;
const notIn2d = notFound('notIn2d', 'Batches are of 3D points: ask a 3D camera, orthographic if need be.');

/** Resolved setups by camera. They are outside of the class, so that its type names nothing internal. */
const setups = new WeakMap<Camera, Resolved>();
const kernels = new WeakMap<Camera, PointKernel>();

/** Returns the kernel of a camera in its conventions; null in 2D. */
export function kernelOf(camera: Camera): PointKernel | null {
  const { frame, codec, world } = setups.get(camera)!;
  if (!world.hasDepth) return null;
  const kernel = kernels.get(camera) ?? enginePointKernel(frame, codec);
  kernels.set(camera, kernel);
  return kernel;
}

/** A camera with its bodies, asked in its conventions. */
export class Camera {
  /** Created by `cameraOf` alone, which checks the setup. */
  constructor(setup: unknown) {
    setups.set(this, setup as Resolved);
  }

  /**
   * Asks an operation of docs/compute.md.
   *
   * @param op - its name
   * @param parts - the parts of its query; those with defaults may be absent
   * @returns the answer, all lists complete, or why there is none
   */
  ask<Name extends keyof Queries>(
    op: Name,
    ...[parts]: Record<never, never> extends Queries[Name] ? [parts?: Queries[Name]] : [parts: Queries[Name]]
  ): Found<Answers[Name]> {
    const read = readQuery({ id: op, op, ...parts }, setups.get(this)!.context);
    if (!read.ok) return notFound('invalid', read.problems[0]!.message, read.problems);
    const answer = computeLists(answerQuery(setups.get(this)!, operationNamed(op)!, read.query as never));
    const { error } = answer as { error?: { code: ErrorCode; message: string } };
    return error ? notFound(error.code, error.message) : ({ ok: true, ...answer } as unknown as Found<Answers[Name]>);
  }

  /** Returns the matrices, sixteen numbers each, as the conventions list them. */
  matrices(): Answers['matrices'] {
    return this.ask('matrices') as Found<Answers['matrices']> & { ok: true };
  }
  /** Returns a world point in every space. */
  worldToScreen(point: Queries['worldToScreen']['points'][number]): Found<Answers['worldToScreen']['points'][number]> {
    const found = this.ask('worldToScreen', { points: [point] });
    return found.ok ? { ok: true, ...found.points[0]! } : found;
  }
  /** Returns the world point of a pixel at a depth; null with the reason where there is none. */
  screenToWorld(
    pixel: readonly [number, number],
    at: Queries['screenToWorld']['at'],
  ): Found<Answers['screenToWorld']['pixels'][number]> {
    const found = this.ask('screenToWorld', { pixels: [pixel], at });
    return found.ok ? { ok: true, ...found.pixels[0]! } : found;
  }
  /** Returns the ray of a pixel: from the eye, in orthographic from the eye plane. Not in 2D. */
  ray(pixel: readonly [number, number]): Found<Answers['rays']['pixels'][number]> {
    const found = this.ask('rays', { pixels: [pixel] });
    return found.ok ? { ok: true, ...found.pixels[0]! } : found;
  }
  /** Returns what a pixel shows: the first hit, or all in their order; back faces only on demand. */
  pick(
    pixel: readonly [number, number],
    options: Omit<Queries['pick'], 'pixels'> = {},
  ): Found<Answers['pick']['pixels'][number]> {
    const found = this.ask('pick', { ...options, pixels: [pixel] });
    return found.ok ? { ok: true, ...found.pixels[0]! } : found;
  }
  /** Returns the verdict on each body: exact, or by the customary test of planes. */
  visibility(options: Partial<Queries['visibility']> = {}): Found<Answers['visibility']> {
    return this.ask('visibility', { method: 'exact', ...options });
  }
  /** Returns the axes of boards that face the view plane or the eye, or turn about an axis. Not in 2D. */
  billboards(items: Queries['billboard']['items']): Found<Answers['billboard']> {
    return this.ask('billboard', { items });
  }
  /** Returns points out of sight, uniform by area, by a seed. */
  spawn(terms: Queries['spawn']): Found<Answers['spawn']> {
    return this.ask('spawn', terms);
  }
  /** Returns the camera after some seconds of a track, from its own pose. */
  along(track: Track, time: number): Found<{ readonly camera: Camera }> {
    const { context } = setups.get(this)!;
    const read = readQuery({ id: 'along', op: 'motion', track, times: [time] }, context);
    if (!read.ok) return notFound('invalid', read.problems[0]!.message, read.problems);
    const written = (read.query as QueryOf<'motion'>).track as WrittenTrack;
    const there = setupAlong(setups.get(this)!, readValue(trackSchema, written, context), time);
    return there.ok ? { ok: true, camera: new Camera(there.value) } : notFound(there.code, there.message);
  }

  /**
   * Projects many points.
   *
   * @param points - x, y, z after one another, world axes
   * @returns x, y (pixels) and depth after one another (0, 0, 0 behind the eye), and a byte a point with the bits of
   *   `outsideBit`, 0 for on screen
   */
  projectPoints(points: Float64Array): Found<{ readonly screen: Float64Array; readonly outside: Uint8Array }> {
    const kernel = kernelOf(this);
    if (!kernel) return notIn2d;
    const [screen, outside] = [new Float64Array(points.length), new Uint8Array(points.length / 3)];
    projectMany(kernel, points, screen, outside);
    return { ok: true, screen, outside };
  }
  /**
   * Converts many pixels with depths to world points, the inverse of `projectPoints`.
   *
   * @param screen - x, y (pixels) and depth after one another
   * @returns x, y, z after one another; NaN where the depth is at infinity or behind the eye
   */
  unprojectPoints(screen: Float64Array): Found<{ readonly points: Float64Array }> {
    const kernel = kernelOf(this);
    if (!kernel) return notIn2d;
    const points = new Float64Array(screen.length);
    unprojectPoints(kernel, screen, points);
    return { ok: true, points };
  }
  /**
   * Computes the rays of many pixels.
   *
   * @param pixels - x, y after one another
   * @returns six numbers a pixel: an origin and a direction of length 1
   */
  pixelRays(pixels: Float64Array): Found<{ readonly rays: Float64Array }> {
    const kernel = kernelOf(this);
    if (!kernel) return notIn2d;
    const rays = new Float64Array(3 * pixels.length);
    pixelRays(kernel, pixels, rays);
    return { ok: true, rays };
  }
  /**
   * Tests many spheres against the planes of the frustum.
   *
   * @param spheres - x, y, z and radius after one another, world axes
   * @returns a byte a sphere, of `sphereVerdict`; touching is crossing
   */
  classifySpheres(spheres: Float64Array): Found<{ readonly verdicts: Uint8Array }> {
    const { frame, codec, world } = setups.get(this)!;
    if (!world.hasDepth) return notIn2d;
    const verdicts = new Uint8Array(spheres.length / 4);
    classifyMany(enginePlaneKernel(frame, codec), spheres, verdicts);
    return { ok: true, verdicts };
  }
}

/**
 * Creates a camera from a setup in an engine's conventions, read as the command line reads requests.
 *
 * @returns the camera with warnings, or everything that is wrong with its numbers: paths, and sentences with the fix
 */
export function cameraOf(
  setup: Setup,
):
  | { readonly ok: true; readonly camera: Camera; readonly warnings: readonly Problem[] }
  | { readonly ok: false; readonly problems: readonly Problem[] } {
  const read = readSetUp(typeof setup === 'object' ? { astrolabe: 1, ...setup } : setup);
  if (!read.ok) return { ok: false, problems: read.problem.errors };
  return { ok: true, camera: new Camera(read.resolved), warnings: read.warnings };
}
