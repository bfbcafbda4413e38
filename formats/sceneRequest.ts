import { viewportSchema } from '../core/request/cameraSchema';
import { expandPreset } from '../core/request/presetConventions';
import { readConventions, conventionsSchema } from '../core/request/conventions';
import { readCamera } from '../core/request/readCamera';
import type { RequestCamera } from '../core/request/cameraSchema';
import { compute } from '../core/compute/compute';
import { problemDocument, type ProblemDocument } from '../core/compute/readRequest';
import { requestSchema, type ReadRequest } from '../core/compute/schema';
import { frameOf } from '../core/camera/frame';
import type { Conventions } from '../core/conventions/conventions';
import { codecOf } from '../core/conventions/codec';
import { projectRequest } from './camera';
import { projectFromRequest } from './fromRequest';
import { readScene } from './gltfRead';
import { writeGlb, writeGltf } from './gltfWrite';
import { projectFromScene, sceneOfProject, type CameraWay } from './sceneProject';

/* Compute requests as glTF and back, for the command line. */

type Refused = { readonly ok: false; readonly problem: ProblemDocument };

/** The ways that a request asks of its camera: of each `motion` query one, its times in their order. */
function waysOf(given: unknown, id: string): CameraWay[] {
  const request = requestSchema.parse(given) as unknown as ReadRequest;
  const queries = request.queries.filter(({ op }) => op === 'motion').slice(0, 1);
  if (!queries.length || 'kind' in request.camera) return [];
  const { projection } = request.camera;
  const answered = compute({ ...request, bodies: [], queries });
  if (!answered.ok) return [];
  const e = codecOf(request.conventions as Conventions);
  const [answer] = answered.response.results as unknown as { times?: { time: number; camera: Record<'position' | 'right' | 'up' | 'forward', [number, number, number]> }[] }[]; // prettier-ignore
  const told = [...(answer?.times ?? [])].sort((a, b) => a.time - b.time);
  const frames = told.flatMap(({ time, camera: { position, right, up, forward } }) => {
    const camera: RequestCamera = { position, orientation: { right, up, forward }, projection };
    const read = readCamera(camera, e);
    const made = read.ok ? frameOf(read.value, request.viewport) : read;
    return made.ok ? [{ time, frame: made.value }] : [];
  });
  return frames.length > 1 ? [{ id, times: frames.map(({ time }) => time), frames: frames.map(({ frame }) => frame) }] : []; // prettier-ignore
}

/**
 * The camera and the bodies of a compute request, any JSON value, as glTF; the first `motion` query is
 * the camera's way. What is wrong with the request is said as `compute` says it.
 */
export async function gltfOfRequest(
  given: unknown,
  name: string,
  asText: boolean,
): Promise<{ readonly ok: true; readonly content: Uint8Array | string; readonly said: readonly string[] } | Refused> {
  const read = projectFromRequest(given, 'request', name);
  if (!read.ok) return { ok: false, problem: problemDocument(read.problems) };
  const { project } = read;
  const made = sceneOfProject(project, codecOf(project.conventions), waysOf(given, project.camera.id));
  const aspect = project.viewport.width / project.viewport.height;
  const written = asText ? await writeGltf(made.scene, aspect) : await writeGlb(made.scene, aspect);
  return { ok: true, said: [...made.said, ...written.said], content: 'text' in written ? written.text : written.bytes };
}

/**
 * Reads a glTF as a compute request: its first camera, else one that sees everything, and its bodies.
 *
 * @param like - a compute request whose conventions and viewport the request has; `{}` for the defaults and a viewport
 *   of the camera's aspect
 */
export async function requestOfGltf(
  bytes: Uint8Array,
  name: string,
  like: unknown,
): Promise<{ readonly ok: true; readonly request: unknown; readonly said: readonly string[] } | Refused> {
  const refuse = (path: string, message: string) => ({
    ok: false as const,
    problem: problemDocument([{ path, message }]),
  });
  const expanded = expandPreset(like);
  if ('problem' in expanded) return { ok: false, problem: problemDocument([expanded.problem]) };
  const wanted = expanded.value as { conventions?: unknown; viewport?: unknown } | null;
  const parsed = conventionsSchema.safeParse(wanted?.conventions);
  if (!parsed.success || !readConventions(parsed.data as Conventions).ok)
    return refuse('conventions', 'These are no conventions: give a compute request that “compute” takes.');
  const conventions = parsed.data as Conventions;
  const viewport = wanted?.viewport === undefined ? null : viewportSchema.safeParse(wanted.viewport);
  if (viewport && !(viewport.success && viewport.data.width > 0 && viewport.data.height > 0))
    return refuse('viewport', 'This is no viewport: give a width and a height above 0, in pixels.');
  const read = await readScene(bytes, name);
  if (!read.ok) return { ok: false, problem: problemDocument([...read.problems]) };
  const made = projectFromScene(read.scene, { id: 'scene', name, conventions, viewport: viewport?.data });
  if (!made.ok) return { ok: false, problem: problemDocument([...made.problems]) };
  const said = [...made.said, ...(read.left.length ? [`Left out: ${read.left.join(', ')}.`] : []), ...(made.ways.length ? ['A request holds no motion of cameras from a file: the camera stands as at rest.'] : [])]; // prettier-ignore
  const request = projectRequest(made.project, codecOf(conventions), null);
  return { ok: true, said, request: viewport?.data ? { ...request, viewport: viewport.data } : request };
}
