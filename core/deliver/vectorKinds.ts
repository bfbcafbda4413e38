import { is2d, type SetUp } from './cameraSetup';
import type { CodePart } from './library';

/*
 * Kinds of test vectors: one for each function of the exported code. A kind states its inputs and outputs, the call
 * of the exported function (in the language of `program.ts`, `given` being the inputs) and the type that it returns.
 */

/** The most input numbers of any kind: columns of the CSV table, and the size of `given` in harnesses. */
export const inputCount = 6;

interface KindEntry {
  readonly part: CodePart;
  readonly input: readonly string[];
  readonly output: readonly string[];
  readonly call: string | ((isOrthographic: boolean) => string);
  readonly type: string;
}

const matrix = Array.from({ length: 16 }, (_, i) => `number ${i + 1}`);
const affine = matrix.slice(0, 6);
const point = ['world x', 'world y', 'world z'];
const pixel = ['pixel x', 'pixel y'];
const plane = ['normal x', 'normal y', 'normal z', 'offset'];
const board = ['right', 'up', 'normal'].flatMap((axis) => ['x', 'y', 'z'].map((letter) => `${axis} ${letter}`));
const screen = ['screen width', 'screen height'];
const disc = ['place x', 'place y', 'radius', 'padding'];
const step = ['held', 'target', 'dead zone', 'half-life', 'time step'];

const given3 = 'vec3(given[0], given[1], given[2])';
const given2 = 'vec2(given[0], given[1])';

const ofPlane = (index: number): KindEntry => ({
  ...{ part: 'planes', input: [], output: plane, type: 'Plane' },
  call: `frustum_of(frame).planes[${index}]`,
});
const followEntry: KindEntry = {
  ...{ part: 'follow', input: step, output: ['held'], type: 'num' },
  call: 'follow(given[0], given[1], given[2], given[3], given[4])',
};
const ofMatrix = (part: CodePart, call: string): KindEntry => ({ part, input: [], output: matrix, call, type: 'mat4' });
const facing = (name: string): KindEntry => ({
  ...{ part: 'billboard', input: point, output: board, type: 'Board' },
  // An orthographic eye is infinitely far: its boards do not depend on their position.
  call: (isOrthographic) => (isOrthographic ? `${name}(frame)` : `${name}(frame, ${given3})`),
});

const kinds3d = {
  view: ofMatrix('camera', 'view_matrix(frame)'),
  projection: ofMatrix('camera', 'projection_matrix(frame)'),
  viewProjection: ofMatrix('camera', 'view_projection_matrix(frame)'),
  cameraToWorld: ofMatrix('camera', 'camera_to_world(frame)'),
  worldToScreen: {
    ...{ part: 'worldToScreen', input: point, output: [...pixel, 'depth', 'ahead'], type: 'ScreenPoint' },
    call: `world_to_screen(frame, ${given3})`,
  },
  screenToWorld: {
    ...{ part: 'screenToWorld', input: [...pixel, 'ahead'], output: point, type: 'vec3' },
    call: `screen_to_world(frame, ${given2}, given[2])`,
  },
  ray: {
    ...{ part: 'ray', input: pixel, type: 'Ray', call: `pixel_ray(frame, ${given2})` },
    output: ['origin x', 'origin y', 'origin z', 'direction x', 'direction y', 'direction z'],
  },
  planeLeft: ofPlane(0),
  planeRight: ofPlane(1),
  planeBottom: ofPlane(2),
  planeTop: ofPlane(3),
  planeNear: ofPlane(4),
  planeFar: ofPlane(5),
  sphereOutside: {
    ...{ part: 'planes', input: [...point, 'radius'], output: ['outside'], type: 'bool' },
    call: `sphere_is_outside(frustum_of(frame), ${given3}, given[3])`,
  },
  boxOutside: {
    ...{ part: 'planes', input: [...point, 'half x', 'half y', 'half z'], output: ['outside'], type: 'bool' },
    call: `box_is_outside(frustum_of(frame), ${given3}, vec3(given[3], given[4], given[5]))`,
  },
  boardInViewPlane: {
    ...{ part: 'billboard', input: [], output: board, type: 'Board', call: 'board_in_view_plane(frame)' },
  },
  boardTowardsEye: facing('board_towards_eye'),
  boardUpright: facing('board_upright'),
  boardAboutAxis: {
    ...{ part: 'billboard', output: board, type: 'Board' },
    input: ['axis x', 'axis y', 'axis z', 'towards x', 'towards y', 'towards z'],
    call: `board_about_axis(frame, ${given3}, vec3(given[3], given[4], given[5]))`,
  },
  mayAppear: {
    ...{ part: 'spawn', input: disc, output: ['may appear'], type: 'bool' },
    call: `may_appear(${given2}, given[2], given[3])`,
  },
  fovForHeight: {
    ...{ part: 'dollyZoom', input: ['height', 'distance'], output: ['field of view'], type: 'num' },
    call: 'fov_for_height(given[0], given[1])',
  },
  heightAt: {
    ...{ part: 'dollyZoom', input: ['distance'], output: ['height'], type: 'num' },
    call: 'height_at(frame, given[0])',
  },
  follow: followEntry,
  keyAhead: {
    ...{ part: 'orderKeys', input: point, output: ['key'], type: 'num', call: `key_ahead(frame, ${given3})` },
  },
  keyDistance: {
    ...{ part: 'orderKeys', input: point, output: ['key'], type: 'num', call: `key_distance(frame, ${given3})` },
  },
  keyScreenHeight: {
    ...{ part: 'orderKeys', input: point, output: ['key'], type: 'num', call: `key_screen_height(frame, ${given3})` },
  },
} as const satisfies Readonly<Record<string, KindEntry>>;

const fits = (name: string): KindEntry => ({
  ...{ part: 'fit', input: screen, output: ['zoom'], type: 'num', call: `${name}(frame, ${given2})` },
});

const kinds2d = {
  worldToPixel: { part: 'matrices', input: [], output: affine, type: 'Affine', call: 'world_to_pixel(frame)' },
  pixelToWorld: { part: 'matrices', input: [], output: affine, type: 'Affine', call: 'pixel_to_world(frame)' },
  worldToScreen: {
    ...{ part: 'worldToScreen', input: point.slice(0, 2), output: pixel, type: 'vec2' },
    call: `world_to_screen(frame, ${given2})`,
  },
  screenToWorld: {
    ...{ part: 'screenToWorld', input: pixel, output: point.slice(0, 2), type: 'vec2' },
    call: `screen_to_world(frame, ${given2})`,
  },
  visible: {
    ...{ part: 'visible', input: [], type: 'Bounds', call: 'visible_bounds(frame)' },
    output: ['least x', 'least y', 'greatest x', 'greatest y'],
  },
  integerZoom: {
    ...{ part: 'integerZoom', input: screen, output: ['zoom'], type: 'num', call: `integer_zoom(frame, ${given2})` },
  },
  layer: {
    ...{ part: 'parallax', input: ['factor', 'world x', 'world y'], output: pixel, type: 'vec2' },
    call: 'layer_to_screen(frame, given[0], vec2(given[1], given[2]))',
  },
  zoomKeepHeight: fits('zoom_keep_height'),
  zoomKeepWidth: fits('zoom_keep_width'),
  zoomShowAll: fits('zoom_show_all'),
  zoomFillAndCrop: fits('zoom_fill_and_crop'),
  zoomStretch: {
    ...{ part: 'fit', input: screen, output: ['zoom x', 'zoom y'], type: 'vec2' },
    call: `zoom_stretch(frame, ${given2})`,
  },
  letterbox: {
    ...{ part: 'fit', input: ['zoom', ...screen], output: ['left', 'edge', 'width', 'height'], type: 'ScreenArea' },
    call: 'letterbox(frame, given[0], vec2(given[1], given[2]))',
  },
  mayAppear: {
    ...{ part: 'spawn', input: disc, output: ['may appear'], type: 'bool' },
    call: `may_appear(frame, ${given2}, given[2], given[3])`,
  },
  follow: followEntry,
  keyScreenHeight: {
    ...{ part: 'orderKeys', input: point.slice(0, 2), output: ['key'], type: 'num' },
    call: `key_screen_height(frame, ${given2})`,
  },
  viewProjection: ofMatrix('matrices4', 'view_projection_matrix(frame)'),
} as const satisfies Readonly<Record<string, KindEntry>>;

export type VectorKind3d = keyof typeof kinds3d;
export type VectorKind2d = keyof typeof kinds2d;
export type VectorKind = VectorKind3d | VectorKind2d;

/** The kinds of cameras of both kinds. */
export const vectorKinds = [...new Set([...Object.keys(kinds3d), ...Object.keys(kinds2d)])] as [
  VectorKind,
  ...VectorKind[],
];

const entriesOf = (isFlat: boolean): Readonly<Record<string, KindEntry>> => (isFlat ? kinds2d : kinds3d);

/** Returns the names of a kind's outputs; kinds of both worlds differ in their number. */
export const outputNames = (kind: VectorKind, count: number): readonly string[] =>
  [kinds3d, kinds2d]
    .map((entries: Readonly<Record<string, KindEntry>>) => entries[kind]?.output)
    .find((names) => names?.length === count) ?? [];

/** Returns the kinds of test vectors that some code parts answer; every part includes `camera`. */
export const kindsOf = (parts: readonly CodePart[], isFlat: boolean): readonly VectorKind[] =>
  Object.entries(entriesOf(isFlat)).flatMap(([kind, { part }]) =>
    part === 'camera' || parts.includes(part) || (part === 'integerZoom' && parts.includes('fit'))
      ? [kind as VectorKind]
      : [],
  );

/** A call of an exported function for a kind. */
export interface KindCall {
  readonly kind: VectorKind;
  readonly call: string;
  readonly type: string;
}

/** Returns the calls that the code of some parts can answer for a camera. */
export function callsOf(setUp: SetUp, parts: readonly CodePart[]): readonly KindCall[] {
  const isFlat = is2d(setUp);
  const isOrthographic = !is2d(setUp) && setUp.camera.projection.kind === 'orthographic';
  const isMissing = (kind: string, part: CodePart): boolean =>
    !is2d(setUp) &&
    ((part === 'spawn' && !setUp.footprint.length) ||
      (part === 'dollyZoom' && isOrthographic) ||
      (kind === 'planeFar' && setUp.camera.projection.far === null));
  return Object.entries(entriesOf(isFlat)).flatMap(([kind, { part, call, type }]) =>
    parts.includes(part) && !isMissing(kind, part)
      ? [{ kind: kind as VectorKind, call: typeof call === 'string' ? call : call(isOrthographic), type }]
      : [],
  );
}
