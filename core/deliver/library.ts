import { is2d, type SetUp, type SetUp3d } from './cameraSetup';
import { codeParts2d, librarySource2d, withNeeded2d } from './library2d';
import type { RequestCamera } from '../request/cameraSchema';
import { indexOf, signOf, type AxisFrame } from '../conventions/axes';
import type { ConventionCodec } from '../conventions/codec';
import { billboardPart, dollyZoomPart, followPart, orderPart, spawnPart } from './parts';
import { letters, negated, placed, plain, signed, vec } from './texts';

/*
 * The mathematics of one camera in one set of conventions, in the language of `program.ts`. Signs and
 * orders that a convention decides are decided here, once, with a comment where they stand.
 */

/** The code parts of a 3D camera, in their order in a file. */
export const codeParts3d = ['camera', 'worldToScreen', 'screenToWorld', 'ray', 'planes', 'billboard', 'spawn', 'dollyZoom', 'follow', 'orderKeys'] as const; // prettier-ignore

/** The code parts of cameras of both kinds. */
export const codeParts = [...codeParts3d, ...codeParts2d.filter((part) => !(codeParts3d as readonly string[]).includes(part))] as const; // prettier-ignore
export type CodePart = (typeof codeParts)[number];

/** Returns the parts that a camera of a kind has. */
export const codePartsOf = (flat: boolean): readonly CodePart[] => (flat ? codeParts2d : codeParts3d);

/** How the camera's orientation is said. */
export type Said = 'angles' | 'lookAt' | 'basis';
const saidOf = ({ orientation: o }: RequestCamera): Said =>
  'yaw' in o ? 'angles' : 'lookAt' in o ? 'lookAt' : 'basis';

/** An angle as radians, for sine and cosine. */
const radians = (e: ConventionCodec, text: string): string => (e.conventions.angles.unit === 'degrees' ? `${text} * pi / 180` : text); // prettier-ignore

function structs(said: Said, infinite: boolean, orthographic: boolean): string {
  const pose = { angles: ['yaw: num,', 'pitch: num,', 'roll: num,'], lookAt: ['look_at: vec3,', 'up: vec3,'], basis: ['right: vec3,', 'up: vec3,', 'forward: vec3,'] }[said]; // prettier-ignore
  return `
// What is set of a camera.
struct Camera {
  eye: vec3,
  ${pose.join('\n  ')}
  ${orthographic ? 'height: num, // world units from bottom to top' : 'fov: num, // vertical'}
  z_near: num,
  ${infinite ? '' : 'z_far: num,'}
  shift: vec2, // in half widths and half heights of the picture
  origin: vec2, // of the viewport, in pixels
  size: vec2,
}
// What follows from it: made once a frame, read by everything else.
struct Frame {
  eye: vec3,
  right: vec3,
  up: vec3,
  forward: vec3,
  half_size: vec2, // half the picture's width and height${orthographic ? ', in world units' : ' at a distance of 1'}
  shift: vec2,
  z_near: num,
  ${infinite ? '' : 'z_far: num,'}
  origin: vec2,
  size: vec2,
}`;
}

/** Right, up and ahead of the camera, by how they are said. */
function basisLines(said: Said, e: ConventionCodec): string {
  const { world, angles } = e.conventions;
  const crossed = (a: string, b: string) => (e.handedness.world === 'right' ? `cross(${a}, ${b})` : `cross(${b}, ${a})`); // prettier-ignore
  if (said === 'basis') return 'let right = camera.right;\n  let up = camera.up;\n  let forward = camera.forward;';
  if (said === 'lookAt')
    return `let forward = normalize(camera.look_at - camera.eye);
  // In ${e.handedness.world}-handed axes this product points to the right.
  let right = normalize(${crossed('forward', 'camera.up')});
  let up = ${crossed('right', 'forward')};`;
  const turn = (name: 'yaw' | 'pitch' | 'roll', positive: boolean) => `let ${name} = ${positive ? '' : '-'}${radians(e, `camera.${name}`)};`; // prettier-ignore
  return `// Inside, yaw turns to the right, pitch upward and roll to the right.
  ${turn('yaw', angles.yaw === 'right')}
  ${turn('pitch', angles.pitch === 'up')}
  ${turn('roll', angles.roll === 'right')}
  let sy = sin(yaw);
  let cy = cos(yaw);
  let sp = sin(pitch);
  let cp = cos(pitch);
  let forward = ${vec(placed(world, ['sy * cp', 'sp', 'cy * cp']))};
  let level_right = ${vec(placed(world, ['cy', '0', '-sy']))};
  let level_up = ${vec(placed(world, ['-sy * sp', 'cp', '-cy * sp']))};
  let right = level_right * cos(roll) - level_up * sin(roll);
  let up = level_up * cos(roll) + level_right * sin(roll);`;
}

function cameraPart({ e }: SetUp3d, said: Said, infinite: boolean, orthographic: boolean): string {
  const { world, view, ndc, matrix } = e.conventions;
  const rows: string[] = ['', '', ''];
  const back: string[][] = [['', '', '', ''], ['', '', '', ''], ['', '', '', '']]; // prettier-ignore
  for (const name of ['right', 'up', 'forward'] as const) {
    const sign = signOf(view[name]) < 0 ? '-' : '';
    const axis = `frame.${name}`;
    rows[indexOf(view[name])] = `${letters.map((letter) => `${sign}${axis}.${letter}`).join(', ')}, ${sign ? '' : '-'}dot(${axis}, frame.eye)`; // prettier-ignore
    letters.forEach((letter, r) => (back[r]![indexOf(view[name])] = `${sign}${axis}.${letter}`));
  }
  letters.forEach((letter, r) => (back[r]![3] = `frame.eye.${letter}`));
  const column = (name: keyof AxisFrame, text: string) => {
    const out = ['0', '0', '0', '0'];
    out[indexOf(view[name])] = signOf(view[name]) < 0 ? negated(text) : text;
    return out;
  };
  const sum = (a: string[], b: string[]) => a.map((v, i) => (v === '0' ? b[i]! : v));
  const last = (text: string) => ['0', '0', '0', text];
  const down = ndc.up === '-y';
  const y = (text: string) => (down ? negated(text) : text);
  const projection = orthographic
    ? [
        sum(column('right', '1 / frame.half_size.x'), last('-frame.shift.x')),
        sum(column('up', y('1 / frame.half_size.y')), last(y('-frame.shift.y'))),
        sum(column('forward', 'slope'), last('offset')),
        last('1'),
      ]
    : [
        sum(column('right', '1 / frame.half_size.x'), column('forward', '-frame.shift.x')),
        sum(column('up', y('1 / frame.half_size.y')), column('forward', y('-frame.shift.y'))),
        sum(column('forward', 'slope'), last('offset')),
        column('forward', '1'),
      ];
  /** A whole factor before a term: nothing for 1, a sign for −1. */
  const times = (k: number, text: string) => (k === 1 ? text : k === -1 ? `-${text}` : `${plain(k)} * ${text}`);
  const [zn, zf] = [ndc.near, ndc.far];
  const range = '(frame.z_far - frame.z_near)';
  /** A sum of two terms, each a whole number of a name. */
  const weighed = (k: number, a: string, l: number, b: string): string =>
    l === 0 ? times(k, a) : k === 0 ? times(l, b) : `(${times(k, a)} ${l < 0 ? '-' : '+'} ${times(Math.abs(l), b)})`;
  // Each quotient has its own numerator: 1 minus the other would leave a float without digits near far.
  const depth = orthographic
    ? `let slope = ${plain(zf - zn)} / ${range};
  let offset = ${weighed(zn, 'frame.z_far', -zf, 'frame.z_near')} / ${range};`
    : infinite
      ? `let slope = ${plain(zf)};
  let offset = ${times(zn - zf, 'frame.z_near')};`
      : `let offset = ${times(zn - zf, 'frame.z_near')} * frame.z_far / ${range};
  let slope = ${weighed(zf, 'frame.z_far', -zn, 'frame.z_near')} / ${range};`;
  const product = matrix.vectors === 'column' ? 'mul(projection_matrix(frame), view_matrix(frame))' : 'mul(view_matrix(frame), projection_matrix(frame))'; // prettier-ignore
  const t = `tan(${radians(e, 'camera.fov')} / 2)`;
  return `
${structs(said, infinite, orthographic)}
// The frame of a camera.
fn frame_of(camera: Camera): Frame {
  ${basisLines(said, e)}
  let half_height = ${orthographic ? 'camera.height / 2' : t};
  let half_size = vec2(half_height * camera.size.x / camera.size.y, half_height);
  return Frame { camera.eye, right, up, forward, half_size, camera.shift, camera.z_near, ${infinite ? '' : 'camera.z_far, '}camera.origin, camera.size };
}
// World (${signed(world)}) to view (${signed(view)}).
fn view_matrix(frame: Frame): mat4 {
  return mat4(
    ${rows.join(',\n    ')},
    0, 0, 0, 1
  );
}
// The camera's own transform, view to world: the inverse of the view.
fn camera_to_world(frame: Frame): mat4 {
  return mat4(
    ${back.map((row) => row.join(', ')).join(',\n    ')},
    0, 0, 0, 1
  );
}
// View to clip: depth ${plain(ndc.near)} at near and ${plain(ndc.far)} at ${infinite ? 'infinity' : 'far'}, y ${down ? 'down' : 'up'}.
fn projection_matrix(frame: Frame): mat4 {
  ${depth}
  return mat4(
    ${projection.map((row) => row.join(', ')).join(',\n    ')}
  );
}
// World to clip.
fn view_projection_matrix(frame: Frame): mat4 {
  // ${matrix.vectors === 'column' ? 'Column vectors: the right factor comes first.' : 'Row vectors: the left factor comes first.'}
  return ${product};
}`;
}

/** From −1…1 across and upward to the pixels of the viewport, and back. */
function screenTexts({ conventions: { screen } }: ConventionCodec) {
  const half = screen.pixelCentre === 0;
  const top = screen.origin === 'top-left';
  return {
    x: `frame.origin.x + (across + 1) / 2 * frame.size.x${half ? ' - 0.5' : ''}`,
    y: `frame.origin.y + (${top ? '1 - upward' : 'upward + 1'}) / 2 * frame.size.y${half ? ' - 0.5' : ''}`,
    across: `(pixel.x${half ? ' + 0.5' : ''} - frame.origin.x) / frame.size.x * 2 - 1`,
    upward: top
      ? `1 - (pixel.y${half ? ' + 0.5' : ''} - frame.origin.y) / frame.size.y * 2`
      : `(pixel.y${half ? ' + 0.5' : ''} - frame.origin.y) / frame.size.y * 2 - 1`,
    edge: `${top ? 'top' : 'bottom'} left corner, the first pixel's middle at ${half ? '0' : '0.5'}`,
  };
}

function worldToScreenPart({ e }: SetUp3d, infinite: boolean, orthographic: boolean): string {
  const text = screenTexts(e);
  const { near, far } = e.conventions.ndc;
  const range = '(frame.z_far - frame.z_near)';
  // From 0 at near to 1 at far, or from 1 to 0: each by its own difference, which keeps its digits where it is small.
  const away = near < far ? '(ahead - frame.z_near)' : '(frame.z_far - ahead)';
  const depth = orthographic
    ? `${away} / ${range}`
    : infinite
      ? near < far
        ? '(ahead - frame.z_near) / ahead'
        : 'frame.z_near / ahead'
      : `${near < far ? 'frame.z_far' : 'frame.z_near'} * ${away} / (ahead * ${range})`;
  return `
struct ScreenPoint {
  x: num, // pixels from the ${text.edge}
  y: num,
  depth: num, // 0 to 1, as the depth buffer has it
  ahead: num, // distance along the gaze
  in_front: bool, // whether there is a picture at all
}
// Where a point of the world comes to on the screen.
fn world_to_screen(frame: Frame, point: vec3): ScreenPoint {
  let to_point = point - frame.eye;
  let ahead = dot(to_point, frame.forward);
${
  orthographic
    ? `  let across = dot(to_point, frame.right) / frame.half_size.x - frame.shift.x;
  let upward = dot(to_point, frame.up) / frame.half_size.y - frame.shift.y;`
    : `  // Behind the eye dividing would give a ghost, mirrored: there is no picture.
  if ahead <= 0 {
    return ScreenPoint { 0, 0, 0, ahead, false };
  }
  let across = dot(to_point, frame.right) / (ahead * frame.half_size.x) - frame.shift.x;
  let upward = dot(to_point, frame.up) / (ahead * frame.half_size.y) - frame.shift.y;`
}
  let depth = ${depth};
  return ScreenPoint {
    ${text.x},
    ${text.y},
    depth,
    ahead,
    true
  };
}`;
}

const throughPixel = ({ e }: SetUp3d): string => {
  const text = screenTexts(e);
  return `let across = ${text.across};
  let upward = ${text.upward};
  let right = (across + frame.shift.x) * frame.half_size.x;
  let up = (upward + frame.shift.y) * frame.half_size.y;`;
};

const screenToWorldPart = (setUp: SetUp3d, orthographic: boolean): string => `
// The point of the world that stands at a pixel, so far ahead of the eye.
fn screen_to_world(frame: Frame, pixel: vec2, ahead: num): vec3 {
  ${throughPixel(setUp)}
  return frame.eye + ${orthographic ? 'frame.right * right + frame.up * up + frame.forward * ahead' : '(frame.right * right + frame.up * up + frame.forward) * ahead'};
}`;

const rayPart = (setUp: SetUp3d, orthographic: boolean): string => `
struct Ray {
  origin: vec3,
  direction: vec3, // of length 1
}
// The ray through a pixel.
fn pixel_ray(frame: Frame, pixel: vec2): Ray {
  ${throughPixel(setUp)}
  return ${orthographic ? 'Ray { frame.eye + frame.right * right + frame.up * up, frame.forward }' : 'Ray { frame.eye, normalize(frame.right * right + frame.up * up + frame.forward) }'};
}`;

function planesPart(infinite: boolean, orthographic: boolean): string {
  const side = (axis: 'right' | 'up', sign: 1 | -1): string => {
    const half = axis === 'right' ? 'frame.half_size.x' : 'frame.half_size.y';
    const shift = axis === 'right' ? 'frame.shift.x' : 'frame.shift.y';
    const way = sign > 0 ? `frame.${axis}` : `-frame.${axis}`;
    const room = `(1 ${sign > 0 ? '-' : '+'} ${shift}) * ${half}`;
    return orthographic ? `plane_through(${way}, frame.eye - ${way.startsWith('-') ? `(${way})` : way} * ${room})` : `plane_through(normalize(${way} + frame.forward * (${room})), frame.eye)`; // prettier-ignore
  };
  const list = [side('right', 1), side('right', -1), side('up', 1), side('up', -1), 'plane_through(frame.forward, frame.eye + frame.forward * frame.z_near)']; // prettier-ignore
  if (!infinite) list.push('plane_through(-frame.forward, frame.eye + frame.forward * frame.z_far)');
  const n = list.length;
  return `
// Points with normal · point + offset above 0 are inside.
struct Plane {
  normal: vec3, // of length 1, pointing inward
  offset: num,
}
fn plane_through(normal: vec3, point: vec3): Plane {
  return Plane { normal, -dot(normal, point) };
}
// Left, right, bottom, top, near${infinite ? '' : ' and far'}.
struct Frustum {
  planes: [${n}] Plane,
}
fn frustum_of(frame: Frame): Frustum {
  return Frustum { [
    ${list.join(',\n    ')}
  ] };
}
// Whether a sphere lies wholly outside one of the planes. At corners some that are outside are not told.
fn sphere_is_outside(frustum: Frustum, centre: vec3, radius: num): bool {
  for i in 0..${n} {
    if dot(frustum.planes[i].normal, centre) + frustum.planes[i].offset < -radius {
      return true;
    }
  }
  return false;
}
// The same for a box along the world's axes, by its middle and half its size.
fn box_is_outside(frustum: Frustum, centre: vec3, half_size: vec3): bool {
  for i in 0..${n} {
    let normal = frustum.planes[i].normal;
    let reach = abs(normal.x) * half_size.x + abs(normal.y) * half_size.y + abs(normal.z) * half_size.z;
    if dot(normal, centre) + frustum.planes[i].offset < -reach {
      return true;
    }
  }
  return false;
}`;
}

/** Returns the parts to be written of those asked for: every part reads the camera. */
export const withNeeded = (setUp: SetUp, parts: readonly CodePart[]): readonly CodePart[] =>
  is2d(setUp)
    ? withNeeded2d(parts, setUp.camera.snap)
    : codeParts3d.filter((part) => part === 'camera' || parts.includes(part));

/** Returns the source of a set-up's parts, in the language of `program.ts`. */
export function librarySource(setUp: SetUp, parts: readonly CodePart[]): string {
  if (is2d(setUp)) return librarySource2d(setUp, parts);
  const { camera, e } = setUp;
  const said = saidOf(camera);
  const orthographic = camera.projection.kind === 'orthographic';
  const infinite = camera.projection.far === null;
  const of: Readonly<Record<(typeof codeParts3d)[number], () => string>> = {
    camera: () => cameraPart(setUp, said, infinite, orthographic),
    worldToScreen: () => worldToScreenPart(setUp, infinite, orthographic),
    screenToWorld: () => screenToWorldPart(setUp, orthographic),
    ray: () => rayPart(setUp, orthographic),
    planes: () => planesPart(infinite, orthographic),
    billboard: () => billboardPart(setUp, orthographic),
    spawn: () => spawnPart(setUp),
    dollyZoom: () => dollyZoomPart(setUp, orthographic),
    follow: () => followPart,
    orderKeys: () => orderPart(orthographic),
  };
  const pi = e.conventions.angles.unit === 'degrees' ? 'const pi = 3.14159265358979323846;\n' : '';
  return pi + codeParts3d.filter((part) => withNeeded(setUp, parts).includes(part)).map((part) => of[part]()).join('\n'); // prettier-ignore
}
