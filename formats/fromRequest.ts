import type { RequestCamera } from '../core/request/cameraSchema';
import { reexpressCamera, reexpressCamera2d } from '../core/request/write';
import { tidyDegrees } from '../core/math/angle';
import { readRequest } from '../core/compute/readRequest';
import { type ResolvedRequest } from '../core/compute/read';
import { defaultConventions } from '../core/conventions/conventions';
import { codecOf } from '../core/conventions/codec';
import { pictureToPixel } from '../core/convert/project';
import { pictureShape } from '../core/camera/frame';
import { fieldOfView } from '../core/camera/projection';
import type { Vec3 } from '../core/math/vec3';
import type { Problem } from '../core/reasons';
import { keepOrientation } from './camera';
import { readProject, type ProjectCamera3d, type ReadProject } from './project';

const kept = codecOf(defaultConventions);
const triple = (v: Vec3): [number, number, number] => [v[0], v[1], v[2]];
const tidy = (v: number) => Number(v.toPrecision(14)) || 0;

/**
 * A compute request as a project of the given id and name: its conventions, camera and bodies, the
 * first point that it asks about as the probe, the first pixel as the way back. What is wrong with
 * the request is answered as the command line would; what a project has no place for (a viewport
 * away from the origin, mirrored extents) is a problem too.
 */
export function projectFromRequest(value: unknown, id: string, name: string): ReadProject {
  const refuse = (...problems: Problem[]): ReadProject => ({ ok: false, problems });
  const read = readRequest(value);
  if (!read.ok) return refuse(...read.problem.errors);
  const { request, resolved: moment } = read;
  const { codec: e, world } = moment;
  const { x, y, width, height } = request.viewport;
  if (x !== 0 || y !== 0)
    return refuse({
      path: 'viewport',
      message: `A project’s viewport begins at 0, 0, and this request’s at ${x}, ${y}. Set x and y to 0.`,
    });
  const camera = 'kind' in request.camera ? null : cameraOf(request.camera, moment);
  if (camera && 'message' in camera) return refuse(camera);
  const asked = request.queries.find((query) => query.op === 'worldToScreen')?.points[0];
  const pixels = request.queries.flatMap((query) =>
    ('pixels' in query ? (query.pixels ?? []) : []).map((one) => ('screen' in one ? one.screen : one)),
  );
  const back = pixels[0] ? pictureToPixel(moment.frame, ...e.fromScreen(request.viewport, pixels[0])) : [width / 2, height / 2]; // prettier-ignore
  return readProject({
    astrolabeProject: 1,
    id,
    name,
    unit: 'units',
    conventions: request.conventions,
    viewport: { width, height, devicePixelRatio: 1 },
    camera:
      'kind' in request.camera
        ? { name: 'Camera', ...reexpressCamera2d(request.camera, request.viewport, e, kept) }
        : { name: 'Camera', ...camera },
    bodies: moment.bodies.map((body) => ({ ...body, name: body.id, position: triple(body.position) })),
    probe: { body: null, drive: { rung: 'world', value: asked ? world.readPoint(asked, e) : [0, 0, 0] } },
    back: { pixel: back, route: 'ahead', value: world.hasDepth ? Math.max(moment.frame.near * 2, 1) : 0 },
  });
}

/** A request's camera as a project keeps it, or why it cannot. */
function cameraOf(
  given: RequestCamera,
  { codec: e, frame }: ResolvedRequest,
): Pick<ProjectCamera3d, 'position' | 'orientation' | 'projection'> | Problem {
  const { near, far, viewport } = frame;
  const { width, height, shift } = pictureShape(frame);
  if (!(width > 0 && height > 0))
    return {
      path: 'camera.projection',
      message: 'The extents are mirrored, which a project’s camera is not. Exchange left and right, or bottom and top.',
    };
  const moved = reexpressCamera(given, e, kept);
  const aspect = tidy(width / height);
  const shaped = {
    shift: shift.map(tidy) as [number, number],
    aspect: Math.abs(aspect / (viewport.width / viewport.height) - 1) < 1e-12 ? null : aspect,
  };
  const fov = moved.projection.kind === 'perspective' ? moved.projection.verticalFov : undefined;
  return {
    position: moved.position,
    orientation: keepOrientation(moved.orientation),
    projection:
      frame.kind === 'perspective'
        ? { kind: 'perspective', verticalFov: fov ?? tidyDegrees(fieldOfView(height, near)), near, far, ...shaped }
        : { kind: 'orthographic', height: tidy(height), near, far: frame.far, ...shaped },
  };
}
