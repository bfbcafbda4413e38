import { frameOf, type Camera, type Viewport } from '../camera/frame';
import { projectPoint } from '../convert/project';
import { axesAreDistinct } from '../conventions/axes';
import type { Conventions } from '../conventions/conventions';
import { codecOf, type ConventionCodec } from '../conventions/codec';
import type { Vec2, Vec3 } from '../math/vec3';
import type { Problem } from '../reasons';
import { largest } from './limits';
import type { RequestCamera2d } from './schema';
import { orthographicOf } from '../camera/camera2d';

/** A value, or everything that is wrong with its input. */
export type Read<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };
export const refuse = (...problems: Problem[]): { ok: false; problems: Problem[] } => ({ ok: false, problems });

/** Conventions whose numbers are right each for itself, checked together (paths below `at`). */
export function readConventions(conventions: Conventions, at = 'conventions'): Read<ConventionCodec> {
  const problems: Problem[] = [];
  for (const space of ['world', 'view'] as const) {
    const { right, up, forward } = conventions[space];
    if (!axesAreDistinct(conventions[space]))
      problems.push({
        path: `${at}.${space}`,
        code: 'axesNotDistinct',
        message: `The ${space} axes ${right}, ${up}, ${forward} use a letter twice. Name x, y and z once each.`,
      });
  }
  const { near, far } = conventions.ndc;
  if (Math.abs(near - far) < 1 / largest)
    problems.push({
      path: `${at}.ndc.far`,
      message:
        near === far
          ? `NDC near and far are both ${near}, so no depth could be told from another. Make them differ.`
          : `NDC near and far, ${near} and ${far}, differ by less than 1e-30, which is too little to divide by. Move them apart.`,
    });
  return problems.length ? { ok: false, problems } : { ok: true, value: codecOf(conventions) };
}

/** A pair of a 2D world as a point of the canonical plane, and back. */
export const readPair = (pair: Vec2, e: ConventionCodec): Vec3 => [...e.fromPair('up', pair), 0];
/** A point of a flat world (canonical right and up) as the pair that the conventions write. */
export const writePair = (p: Vec3, e: ConventionCodec): [number, number] => [...e.toPair('up', [p[0], p[1]])];

/**
 * A 2D camera as the orthographic one that it equals, its translation snapped to whole pixels of
 * the request's screen if it asks for that.
 */
export function readCamera2d(given: RequestCamera2d, viewport: Viewport, e: ConventionCodec): Read<Camera> {
  if (!(given.zoom > 0))
    return refuse({
      path: 'camera.zoom',
      code: 'zoomNotPositive',
      message: `zoom is ${given.zoom}; it is pixels per world unit and must be above 0.${
        given.zoom < 0 ? ' A world whose y grows downward says so with its up axis.' : ''
      }`,
    });
  const [a, b] = readPair(given.focus, e);
  const anchored = (shift: readonly [number, number]) => {
    const at: [number, number] = [given.anchor[0] + shift[0], given.anchor[1] + shift[1]];
    return orthographicOf(
      { focus: [a, b], anchor: e.fromScreen(viewport, at), zoom: given.zoom, rotation: e.fromAngle(given.rotation) },
      viewport,
    );
  };
  const camera = anchored([0, 0]);
  const frame = given.snap === 'none' ? null : frameOf(camera, viewport);
  if (!frame?.ok) return { ok: true, value: camera };
  // The translation is where the world's origin lands.
  const origin = projectPoint(frame.value, [0, 0, 0]).picture;
  if (!origin.ok) return { ok: true, value: camera };
  const t = e.toScreen(viewport, origin.value.across, origin.value.upward);
  const whole = (v: number) => Math.floor(given.snap === 'round' ? v + 0.5 : v);
  return { ok: true, value: anchored([whole(t[0]) - t[0], whole(t[1]) - t[1]]) };
}

/** A point of the request in canonical space: a pair in a 2D world, three numbers otherwise. */
export function readPoint(given: readonly number[], path: string, e: ConventionCodec, flat: boolean): Read<Vec3> {
  if (flat === (given.length === 2))
    return {
      ok: true,
      value: flat ? readPair([given[0]!, given[1]!], e) : e.fromWorld([given[0]!, given[1]!, given[2]!]),
    };
  return refuse({
    path,
    message: flat
      ? 'With a 2D camera a point is a pair: the world’s coordinates to the right and up.'
      : 'A point has three coordinates, x, y and z.',
  });
}
