import { indexOf, signOf } from '../conventions/axes';
import type { RequestCamera2d } from '../request/cameraSchema';
import type { SetUp2d } from './cameraSetup';
import { followPart } from './parts';
import { plain } from './texts';

/*
 * The mathematics of a 2D camera in one set of conventions, in the language of `program.ts`. Signs that a
 * convention decides are decided here, once, with a comment.
 */

/** The code parts of a 2D camera, in their order in a file. */
export const codeParts2d = ['snap', 'camera', 'worldToScreen', 'screenToWorld', 'visible', 'integerZoom', 'fit', 'parallax', 'follow', 'spawn', 'orderKeys', 'matrices', 'matrices4'] as const; // prettier-ignore
export type CodePart2d = (typeof codeParts2d)[number];

/** Returns the parts to be written: those asked for, and those that they call. */
export const withNeeded2d = (parts: readonly string[], snap: RequestCamera2d['snap']): readonly CodePart2d[] =>
  codeParts2d.filter(
    (part) =>
      part === 'camera' ||
      (part === 'snap' && snap !== 'none') ||
      // Whole multiples are one of the policies of fit.
      (part === 'integerZoom' && parts.includes('fit')) ||
      parts.includes(part),
  );

/** A factor before a term: nothing for 1, a minus for −1. */
const signedBy = (sign: 1 | -1): string => (sign < 0 ? '-' : '');

const snapPart = `
// Rounds a translation to whole pixels.
fn snap_floor(value: num): num {
  return floor(value);
}
// The same, halves up.
fn snap_round(value: num): num {
  return floor(value + 0.5);
}`;

/** How a translation is written where the camera snaps. */
const snapped = ({ camera: { snap } }: SetUp2d, text: string): string =>
  snap === 'none' ? text : `${snap === 'floor' ? 'snap_floor' : 'snap_round'}(${text})`;

function cameraPart(setUp: SetUp2d): string {
  const { world, screen, angles } = setUp.e.conventions;
  const radians = angles.unit === 'degrees' ? 'camera.rotation * pi / 180' : 'camera.rotation';
  const [right, up] = [signOf(world.right), signOf(world.up)];
  const rows = screen.origin === 'top-left' ? -1 : 1;
  const mirrored = right * up * rows < 0;
  const sign = (of: number) => signedBy(of < 0 ? -1 : 1);
  const { snap } = setUp.camera;
  return `
// The numbers of a camera.
struct Camera {
  focus: vec2, // the world point at the anchor
  anchor: vec2, // in pixels
  zoom: num, // pixels per world unit
  rotation: num, // of the world, counter-clockwise as seen
  origin: vec2, // of the viewport, in pixels
  size: vec2, // of the viewport, in pixels
}
// pixel = (xx, xy; yx, yy) * world + shift: computed once a frame, read by everything else.
struct Frame {
  xx: num,
  xy: num,
  yx: num,
  yy: num,
  unsnapped: vec2, // where the world's origin is on the screen
  shift: vec2, // the same${snap === 'none' ? '; this camera does not snap' : ', in whole pixels'}
  focus: vec2,
  anchor: vec2,
  zoom: num,
  origin: vec2,
  size: vec2,
}
// The frame of a camera: pixel = zoom * F * R * (world - focus) + anchor.
fn frame_of(camera: Camera): Frame {
  let angle = ${radians};
  let s = camera.zoom * sin(angle);
  let c = camera.zoom * cos(angle);
  // World ${world.right} right and ${world.up} up, rows from the ${rows < 0 ? 'top' : 'bottom'}: F ${mirrored ? 'mirrors' : 'does not mirror'}.
  let xx = ${sign(right)}c;
  let xy = ${sign(-up)}s;
  let yx = ${sign(rows * right)}s;
  let yy = ${sign(rows * up)}c;
  let x = camera.anchor.x - (xx * camera.focus.x + xy * camera.focus.y);
  let y = camera.anchor.y - (yx * camera.focus.x + yy * camera.focus.y);
  return Frame { xx, xy, yx, yy, vec2(x, y), vec2(${snapped(setUp, 'x')}, ${snapped(setUp, 'y')}), camera.focus, camera.anchor, camera.zoom, camera.origin, camera.size };
}`;
}

const worldToScreenPart = `
// World to pixels.
fn world_to_screen(frame: Frame, point: vec2): vec2 {
  return vec2(
    frame.xx * point.x + frame.xy * point.y + frame.shift.x,
    frame.yx * point.x + frame.yy * point.y + frame.shift.y
  );
}`;

const screenToWorldPart = `
// Pixels to world. Turning and scaling alike, the inverse is the transpose over the square of the zoom.
fn screen_to_world(frame: Frame, pixel: vec2): vec2 {
  let x = pixel.x - frame.shift.x;
  let y = pixel.y - frame.shift.y;
  let square = frame.zoom * frame.zoom;
  return vec2((frame.xx * x + frame.yx * y) / square, (frame.xy * x + frame.yy * y) / square);
}`;

/** How far before 0 the screen begins: half a pixel where pixel centres are whole numbers. */
const half = ({ e }: SetUp2d): string => (e.conventions.screen.pixelCentre === 0 ? ' - 0.5' : '');

const visiblePart = (setUp: SetUp2d): string => `
struct Bounds {
  min_x: num,
  min_y: num,
  max_x: num,
  max_y: num,
}
// The bounding box of the world that the viewport shows.
fn visible_bounds(frame: Frame): Bounds {
  let x = frame.origin.x + frame.size.x / 2${half(setUp)} - frame.shift.x;
  let y = frame.origin.y + frame.size.y / 2${half(setUp)} - frame.shift.y;
  let square = frame.zoom * frame.zoom;
  let middle_x = (frame.xx * x + frame.yx * y) / square;
  let middle_y = (frame.xy * x + frame.yy * y) / square;
  let reach_x = (abs(frame.xx) * frame.size.x + abs(frame.yx) * frame.size.y) / (2 * square);
  let reach_y = (abs(frame.xy) * frame.size.x + abs(frame.yy) * frame.size.y) / (2 * square);
  return Bounds { middle_x - reach_x, middle_y - reach_y, middle_x + reach_x, middle_y + reach_y };
}`;

const integerZoomPart = `
// The largest whole zoom at which a screen shows what the viewport shows, or the largest whole fraction on a
// smaller screen. The factor keeps quotients that rounding leaves just below a whole number.
fn integer_zoom(frame: Frame, screen: vec2): num {
  let most = frame.zoom * min(screen.x / frame.size.x, screen.y / frame.size.y) * 1.000001;
  if most >= 1 {
    return floor(most);
  }
  return -1 / floor(-1 / most);
}`;

const fitPart = `
// Zooms with which another screen shows the picture of this viewport, by policy; whole multiples are integer_zoom.
fn zoom_keep_height(frame: Frame, screen: vec2): num {
  return frame.zoom * screen.y / frame.size.y;
}
fn zoom_keep_width(frame: Frame, screen: vec2): num {
  return frame.zoom * screen.x / frame.size.x;
}
// At least what the viewport shows.
fn zoom_show_all(frame: Frame, screen: vec2): num {
  return frame.zoom * min(screen.x / frame.size.x, screen.y / frame.size.y);
}
// At most what the viewport shows.
fn zoom_fill_and_crop(frame: Frame, screen: vec2): num {
  return frame.zoom * max(screen.x / frame.size.x, screen.y / frame.size.y);
}
struct ScreenArea {
  origin: vec2,
  size: vec2,
}
// Exactly what the viewport shows, at a zoom, between bars: the area of the screen in whole pixels.
fn letterbox(frame: Frame, zoom: num, screen: vec2): ScreenArea {
  let width = max(1, floor(frame.size.x * zoom / frame.zoom + 0.5));
  let height = max(1, floor(frame.size.y * zoom / frame.zoom + 0.5));
  return ScreenArea { vec2(floor((screen.x - width) / 2), floor((screen.y - height) / 2)), vec2(width, height) };
}
// Zooms across and upward that stretch the picture from edge to edge.
fn zoom_stretch(frame: Frame, screen: vec2): vec2 {
  return vec2(frame.zoom * screen.x / frame.size.x, frame.zoom * screen.y / frame.size.y);
}`;

const parallaxPart = (setUp: SetUp2d): string => `
// A point of a parallax layer to pixels: at 0 the layer stays on the screen, at 1 it moves with the world. At the
// world's origin all layers coincide.
fn layer_to_screen(frame: Frame, factor: num, point: vec2): vec2 {
  let x = frame.anchor.x - (frame.xx * frame.focus.x + frame.xy * frame.focus.y) * factor;
  let y = frame.anchor.y - (frame.yx * frame.focus.x + frame.yy * frame.focus.y) * factor;
  return vec2(frame.xx * point.x + frame.xy * point.y + ${snapped(setUp, 'x')}, frame.yx * point.x + frame.yy * point.y + ${snapped(setUp, 'y')});
}`;

const spawnPart = (setUp: SetUp2d): string => `
// Whether a disc may appear at a place: clear of the viewport by its radius and a padding, in world units.
fn may_appear(frame: Frame, place: vec2, radius: num, padding: num): bool {
  let x = frame.xx * place.x + frame.xy * place.y + frame.shift.x - frame.origin.x${half(setUp) && ' + 0.5'};
  let y = frame.yx * place.x + frame.yy * place.y + frame.shift.y - frame.origin.y${half(setUp) && ' + 0.5'};
  let off_x = max(0, max(-x, x - frame.size.x));
  let off_y = max(0, max(-y, y - frame.size.y));
  let off = sqrt(off_x * off_x + off_y * off_y) / frame.zoom;
  return off > 0 && off >= radius + padding;
}`;

const orderPart = ({ e }: SetUp2d): string => `
// A key to draw by, the farthest first: the height of a sprite's foot point on the screen, in pixels.
fn key_screen_height(frame: Frame, foot: vec2): num {
  return ${e.conventions.screen.origin === 'top-left' ? '-(frame.yx * foot.x + frame.yy * foot.y)' : 'frame.yx * foot.x + frame.yy * foot.y'};
}`;

function matricesPart({ e }: SetUp2d): string {
  const { vectors } = e.conventions.matrix;
  const fields = e.listsColumns ? ['a', 'c', 'b', 'd', 'tx', 'ty'] : ['a', 'b', 'tx', 'c', 'd', 'ty'];
  const make = (of: Readonly<Record<string, string>>) => `Affine { ${fields.map((name) => of[name]).join(', ')} }`;
  const form = vectors === 'column' ? '[a b tx; c d ty] for column vectors' : '[a c; b d; tx ty] for row vectors';
  return `
// The matrix ${form}, ${e.listsColumns === (vectors === 'column') ? 'column by column' : 'row by row'}: x' = a x + b y + tx, y' = c x + d y + ty.
struct Affine {
  ${fields.map((name) => `${name}: num,`).join('\n  ')}
}
// World to pixels, before snapping.
fn world_to_pixel(frame: Frame): Affine {
  return ${make({ a: 'frame.xx', b: 'frame.xy', tx: 'frame.unsnapped.x', c: 'frame.yx', d: 'frame.yy', ty: 'frame.unsnapped.y' })};
}
// Pixels to world, before snapping.
fn pixel_to_world(frame: Frame): Affine {
  let square = frame.zoom * frame.zoom;
  let x = frame.unsnapped.x;
  let y = frame.unsnapped.y;
  return ${make({
    ...{ a: 'frame.xx / square', b: 'frame.yx / square', tx: '-(frame.xx * x + frame.yx * y) / square' },
    ...{ c: 'frame.xy / square', d: 'frame.yy / square', ty: '-(frame.xy * x + frame.yy * y) / square' },
  })};
}`;
}

/** The 4×4 matrix that a GPU takes: world to clip, z by the depth range. */
function matrices4Part(setUp: SetUp2d): string {
  const { world, ndc, screen } = setUp.e.conventions;
  const [r, u, f] = [indexOf(world.right), indexOf(world.up), indexOf(world.forward)];
  const row = (texts: Readonly<Record<number, string>>, last: string): string =>
    [0, 1, 2]
      .map((i) => texts[i] ?? '0')
      .concat(last)
      .join(', ');
  const edge = half(setUp) && ' + 0.5';
  const down = (screen.origin === 'top-left') === (ndc.up === '+y');
  const sign = down ? '-' : '';
  const along = (signOf(world.forward) * (ndc.far - ndc.near)) / 2;
  return `
// World to clip: a plane at depth ${plain((ndc.near + ndc.far) / 2)}, one unit of the depth axis to either end of ${plain(ndc.near)} to ${plain(ndc.far)}.
fn view_projection_matrix(frame: Frame): mat4 {
  let per_x = 2 / frame.size.x;
  let per_y = ${sign}2 / frame.size.y;
  return mat4(
    ${row({ [r]: 'frame.xx * per_x', [u]: 'frame.xy * per_x' }, `(frame.shift.x${edge} - frame.origin.x) * per_x - 1`)},
    ${row({ [r]: 'frame.yx * per_y', [u]: 'frame.yy * per_y' }, `(frame.shift.y${edge} - frame.origin.y) * per_y ${down ? '+' : '-'} 1`)},
    ${row({ [f]: plain(along) }, plain((ndc.near + ndc.far) / 2))},
    0, 0, 0, 1
  );
}`;
}

/** Returns the source of a 2D camera's parts, in the language of `program.ts`. */
export function librarySource2d(setUp: SetUp2d, parts: readonly string[]): string {
  const wanted = withNeeded2d(parts, setUp.camera.snap);
  const of: Readonly<Record<CodePart2d, () => string>> = {
    snap: () => snapPart,
    camera: () => cameraPart(setUp),
    worldToScreen: () => worldToScreenPart,
    screenToWorld: () => screenToWorldPart,
    visible: () => visiblePart(setUp),
    integerZoom: () => integerZoomPart,
    fit: () => fitPart,
    parallax: () => parallaxPart(setUp),
    follow: () => followPart,
    spawn: () => spawnPart(setUp),
    orderKeys: () => orderPart(setUp),
    matrices: () => matricesPart(setUp),
    matrices4: () => matrices4Part(setUp),
  };
  const pi = setUp.e.conventions.angles.unit === 'degrees' ? 'const pi = 3.14159265358979323846;\n' : '';
  return pi + wanted.map((part) => of[part]()).join('\n');
}

const pair = ([x, y]: readonly number[]): string => `vec2(${plain(x!)}, ${plain(y!)})`;

/** Returns the camera's own numbers as a value of the program. */
export const cameraText2d = ({ camera, viewport }: SetUp2d): string =>
  `Camera { ${[
    pair(camera.focus),
    pair(camera.anchor),
    plain(camera.zoom),
    plain(camera.rotation),
    pair([viewport.x, viewport.y]),
    pair([viewport.width, viewport.height]),
  ].join(', ')} }`;
