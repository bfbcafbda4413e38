import { codecOf, type ConventionCodec } from '../conventions/codec';
import type { Conventions } from '../conventions/conventions';
import type { Viewport } from '../camera/frame';
import type { RequestCamera2d } from '../request/cameraSchema';
import { conventionsBy, dice } from './wrongEngine';

/** A random 2D camera in random conventions, for tests. */
export interface Case2d {
  readonly camera: RequestCamera2d;
  readonly viewport: Viewport;
  readonly codec: ConventionCodec;
  readonly request: object;
}

/** Returns the case of a seed. Every way of snapping comes up in three. */
export function case2dBy(seed: number): Case2d {
  const d = dice(seed * 6007 + 5);
  const conventions = conventionsBy(d) as Conventions;
  const codec = codecOf(conventions);
  const viewport = { x: d.of([0, 20]), y: d.of([0, 10]), width: d.of([1280, 640]), height: d.of([720, 400]) };
  const camera: RequestCamera2d = {
    kind: '2d',
    focus: [d.real(-200, 200), d.real(-90, 90)],
    anchor: [viewport.x + d.real(0.2, 0.8) * viewport.width, viewport.y + d.real(0.2, 0.8) * viewport.height],
    zoom: d.real(0.4, 6),
    rotation: codec.toAngle(d.real(-2.5, 2.5)),
    snap: (['none', 'floor', 'round'] as const)[seed % 3]!,
  };
  return { camera, viewport, codec, request: { astrolabe: 1, conventions, viewport, camera, queries: [] } };
}
