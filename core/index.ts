/*
 * The core as a package: a camera in an engine's own conventions, and what follows from it. Every number that goes in or
 * comes out is in those conventions: axes, angles, pixels, depths, matrix order. The operations are those of
 * docs/compute.md, which has the sources of their formulas. Nothing here throws for bad input.
 */
export { Camera, cameraOf, outsideBit, sphereVerdict, type Found } from './package/camera';
export { createPointBatch, type PointBatch } from './package/batch';
export type { Answers, GivenConventions, Queries, Setup, Track } from './package/types';
export { compute, type ComputeResponse } from './package/compute';
export { version } from './version';
export * from './package/conventions';
export * from './package/matrices';
export type { ErrorCode, NullReason } from './reasons';
