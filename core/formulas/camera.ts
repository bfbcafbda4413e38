import { anglesOfBasis, basisOfLookAt, type Angles } from '../camera/orientation';
import type { CameraFrame } from '../camera/frame';
import { handednessOf, indexOf, letterOf, signOf, type AxisFrame } from '../conventions/axes';
import type { ConventionCodec } from '../conventions/codec';
import { projectPoint, worldToViewRuf } from '../convert/project';
import { mat4 } from '../math/mat4';
import type { Vec2, Vec3 } from '../math/vec3';
import {
  call,
  minus,
  name,
  negative,
  number,
  plus,
  product,
  quotient,
  signed,
  type Expression,
  type Formulas,
  type Given,
  type Step,
} from './expression';

/*
 * The way between a point and its pixel without matrices, for the camera that there is and in the
 * conventions in force: only the parts that matter (no roll, no terms of roll). Derived in
 * `docs/derivations.md`, "Scalar formulas".
 */

/** Angles below this turn nothing that a double could tell. */
const nothing = 1e-12;

interface Parts {
  readonly given: Given[];
  readonly steps: Step[];
}
const adders = ({ given, steps }: Parts) => ({
  give: (own: string, tex: string, value: number, says: string): Expression => {
    given.push({ name: own, tex, value: value === 0 ? 0 : value, says });
    return name(own);
  },
  work: (own: string, tex: string, of: Expression, says = ''): Expression => {
    steps.push({ name: own, tex, of, says });
    return name(own);
  },
});
type Adders = ReturnType<typeof adders>;

/** The sines and cosines of the angles that turn something; null for those that do not. */
function turns({ give, work }: Adders, frame: CameraFrame, e: ConventionCodec, flat: boolean) {
  const angles = anglesOfBasis(frame);
  const shown = e.toAngles(angles);
  const { unit } = e.conventions.angles;
  const symbols = { yaw: '\\psi', pitch: '\\theta', roll: '\\varphi' } as const;
  const letters = { yaw: 'Yaw', pitch: 'Pitch', roll: 'Roll' } as const;
  const of = (which: keyof Angles) => {
    if (Math.abs(angles[which]) < nothing || (flat && which !== 'roll')) return null;
    const s = symbols[which];
    const own = flat ? 'rotation' : which;
    // On a flat world the rotation is the world's, counter-clockwise, which rolls the camera right.
    const value = flat ? e.toAngle(angles.roll) : shown[which];
    const sense = flat ? 'counter-clockwise' : `positive ${e.conventions.angles[which]}`;
    const angle = give(own, s, value, `${flat ? 'rotation of the world' : which}, ${unit}, ${sense}`);
    const inRadians =
      unit === 'radians'
        ? angle
        : work(`${own}Radians`, `${s}'`, quotient(product(angle, number(Math.PI)), number(180)));
    // A sense against ours turns the sine over and leaves the cosine.
    const turned = flat ? 1 : Math.sign(shown[which]) === Math.sign(angles[which]) ? 1 : -1;
    const label = flat ? 'Rotation' : letters[which];
    return {
      sin: work(`sin${label}`, `s_{${s}}`, signed(turned, call('sin', inRadians)), `sine and cosine of the ${own}`),
      cos: work(`cos${label}`, `c_{${s}}`, call('cos', inRadians)),
    };
  };
  return { yaw: of('yaw'), pitch: of('pitch'), roll: of('roll') };
}

/** Pixels that a unit takes: at distance 1 in perspective, anywhere in orthographic. */
function scales({ give, work }: Adders, frame: CameraFrame, flat: boolean): { across: Expression; upward: Expression } {
  const { extents: x, near, viewport: v, kind } = frame;
  const perspective = kind === 'perspective';
  const k = perspective ? near : 1;
  const [kx, ky] = [(v.width * k) / (x.right - x.left), (v.height * k) / (x.top - x.bottom)];
  const square = Math.abs(kx / ky - 1) < 1e-12;
  const says = flat ? 'zoom, pixels a unit' : perspective ? 'pixels a unit at distance 1' : 'pixels a unit';
  if (perspective && square && x.top === -x.bottom) {
    const fov = give('halfField', '\\alpha', Math.atan(x.top / near), 'half the vertical field of view, radians');
    const height = give('height', 'H', v.height, 'height of the viewport, pixels');
    const pixels = work('pixelsAt1', 'K', quotient(height, product(number(2), call('tan', fov))), says);
    return { across: pixels, upward: pixels };
  }
  if (square) {
    const pixels = give(flat ? 'zoom' : 'pixelsPerUnit', flat ? 'z' : 'K', ky, says);
    return { across: pixels, upward: pixels };
  }
  return {
    across: give('pixelsAcross', 'K_x', kx, `${says}, across`),
    upward: give('pixelsUpward', 'K_y', ky, `${says}, upward`),
  };
}

/** What the differences are taken from, and the pixel that it has: the eye, or a flat camera's focus. */
interface About {
  readonly point: Vec3;
  readonly pixel: Vec2;
}
function aboutOf(frame: CameraFrame, e: ConventionCodec, focus: Vec3 | null): About {
  const { extents: x } = frame;
  if (focus) {
    const { picture } = projectPoint(frame, focus);
    if (!picture.ok) throw new Error('a flat camera has a picture of everything');
    return { point: focus, pixel: e.toScreen(frame.viewport, picture.value.across, picture.value.upward) };
  }
  // Where the gaze meets the screen: the middle, unless the lens is shifted.
  const [across, upward] = [-(x.right + x.left) / (x.right - x.left), -(x.top + x.bottom) / (x.top - x.bottom)];
  return { point: frame.eye, pixel: e.toScreen(frame.viewport, across, upward) };
}

/** What both ways have: what they are taken from, and the camera's turns, scales and middle. */
function begin(frame: CameraFrame, e: ConventionCodec, focus: Vec3 | null) {
  const parts: Parts = { given: [], steps: [] };
  const add = adders(parts);
  const flat = focus !== null;
  const { point, pixel } = aboutOf(frame, e, focus);
  const centre = flat ? 'anchor' : 'centre';
  const says = flat ? 'where the focus lies on the screen' : 'where the gaze meets the screen';
  const middle = (i: 0 | 1) => add.give(`${centre}${'XY'[i]}`, `c_${'xy'[i]}`, pixel[i], `${says}, ${'xy'[i]}`);
  return {
    ...add,
    ...{ parts, flat, base: flat ? 'focus' : 'eye', c: e.toWorld(point) },
    /** Given after what the question itself gives. */
    lens: () => ({
      angle: turns(add, frame, e, flat),
      k: scales(add, frame, flat),
      cx: middle(0),
      cy: middle(1),
    }),
  };
}

const directions = ['right', 'up', 'forward'] as const;
const short = { right: 'Right', up: 'Up', forward: 'Ahead' } as const;
const texOf = { right: 'r', up: 'u', forward: 'f' } as const;

/**
 * World point to pixel as scalar formulas. `point` is in canonical world space; `focus` is that of
 * a flat camera, null in space. What is given and what comes out are numbers of the conventions:
 * angles in their unit and sense, `screenX` and `screenY` as the screen is counted. Perspective
 * also gives `ahead` (view depth) and `scale` (pixels that a unit takes there: what a sprite is
 * drawn with); a point that is not ahead gives numbers without meaning, as the division does.
 */
export function forwardFormulas(frame: CameraFrame, e: ConventionCodec, point: Vec3, focus: Vec3 | null): Formulas {
  const { parts, give, work, flat, base, c, lens } = begin(frame, e, focus);
  const { world } = e.conventions;
  const p = e.toWorld(point);
  const difference = (direction: 'right' | 'up' | 'forward') => {
    const axis = world[direction];
    const letter = letterOf(axis);
    const i = indexOf(axis);
    const own = give(letter, letter, p[i]!, `the point’s ${letter}`);
    const its = give(`${base}${letter.toUpperCase()}`, `${base[0]}_${letter}`, c[i]!, `the ${base}’s ${letter}`);
    return { own, its, sign: signOf(axis), direction };
  };
  const wanted = directions.filter((one) => !flat || one !== 'forward').map(difference);
  const { angle, k, cx, cy } = lens();
  const differences = wanted.map(({ own, its, sign, direction }, i) =>
    work(
      `d${short[direction]}`,
      `d_{${texOf[direction]}}`,
      sign > 0 ? minus(own, its) : minus(its, own),
      i ? '' : `how far it is from the ${base}, along the world’s axes`,
    ),
  );
  let right = differences[0]!;
  let upward = differences[1]!;
  let ahead: Expression | null = differences[2] ?? null;
  if (angle.yaw && ahead) {
    const { sin, cos } = angle.yaw;
    const [r, f] = [right, ahead];
    right = work('right1', "r'", minus(product(r, cos), product(f, sin)), 'turned by the yaw');
    ahead = work('ahead1', "f'", plus(product(r, sin), product(f, cos)));
  }
  if (angle.pitch && ahead) {
    const { sin, cos } = angle.pitch;
    const [u, f] = [upward, ahead];
    ahead = work('ahead2', "f''", plus(product(f, cos), product(u, sin)), 'and by the pitch');
    upward = work('up2', "u''", minus(product(u, cos), product(f, sin)));
  }
  if (angle.roll) {
    const { sin, cos } = angle.roll;
    const [r, u] = [right, upward];
    right = work('right3', "r'''", minus(product(r, cos), product(u, sin)), flat ? 'turned by the rotation' : 'and by the roll'); // prettier-ignore
    upward = work('up3', "u'''", plus(product(u, cos), product(r, sin)));
  }
  const names = ['screenX', 'screenY'];
  let [sx, sy] = [k.across, k.upward];
  if (ahead) {
    const depth = work('ahead', 'f', ahead, 'view depth');
    names.unshift('ahead');
    if (frame.kind === 'perspective') {
      const same = sx === sy;
      sx = work('scale', same ? 's' : 's_x', quotient(sx, depth), 'perspective scale: pixels that a unit takes there');
      sy = same ? sx : work('scaleUp', 's_y', quotient(sy, depth));
      names.splice(1, 0, 'scale');
    }
  }
  work('screenX', 'x_s', plus(cx, product(right, sx)), 'on the screen');
  const height = product(upward, sy);
  work('screenY', 'y_s', e.screenGrowsUp ? plus(cy, height) : minus(cy, height));
  return { ...parts, wanted: names };
}

/**
 * Pixel back to world point as scalar formulas: `screen` as the conventions count it, `ahead` the
 * distance ahead (not used on a flat world). The inverse of `forwardFormulas`, step by step.
 */
export function backFormulas(
  frame: CameraFrame,
  e: ConventionCodec,
  screen: Vec2,
  ahead: number,
  focus: Vec3 | null,
): Formulas {
  const { parts, give, work, flat, base, c, lens } = begin(frame, e, focus);
  const { world } = e.conventions;
  const [x, y] = [give('screenX', 'x_s', screen[0], 'on the screen, x'), give('screenY', 'y_s', screen[1], 'on the screen, y')]; // prettier-ignore
  const depth = flat ? null : give('ahead', 'f', ahead, 'view depth');
  const { angle, k, cx, cy } = lens();
  const lateral = (way: Expression, pixels: Expression) =>
    frame.kind === 'perspective' && depth ? quotient(product(way, depth), pixels) : quotient(way, pixels);
  let right = work(
    'right3',
    "r'''",
    lateral(minus(x, cx), k.across),
    `across and upward from the ${flat ? 'anchor' : 'middle'}, in units`,
  );
  let upward = work('up3', "u'''", lateral(e.screenGrowsUp ? minus(y, cy) : minus(cy, y), k.upward));
  let forward = depth;
  if (angle.roll) {
    const { sin, cos } = angle.roll;
    const [r, u] = [right, upward];
    right = work(
      'right2',
      "r''",
      plus(product(r, cos), product(u, sin)),
      flat ? 'the rotation undone' : 'the roll undone',
    );
    upward = work('up2', "u''", minus(product(u, cos), product(r, sin)));
  }
  if (angle.pitch && forward) {
    const { sin, cos } = angle.pitch;
    const [u, f] = [upward, forward];
    forward = work('ahead1', "f'", minus(product(f, cos), product(u, sin)), 'the pitch undone');
    upward = work('up1', "u'", plus(product(u, cos), product(f, sin)));
  }
  if (angle.yaw && forward) {
    const { sin, cos } = angle.yaw;
    const [r, f] = [right, forward];
    right = work('dRight', 'd_{r}', plus(product(r, cos), product(f, sin)), 'the yaw undone');
    forward = work('dAhead', 'd_{f}', minus(product(f, cos), product(r, sin)));
  }
  const found: Readonly<Record<'right' | 'up' | 'forward', Expression | null>> = { right, up: upward, forward };
  const names: string[] = [];
  for (const direction of directions) {
    const way = found[direction];
    if (!way) continue;
    const axis = world[direction];
    const letter = letterOf(axis);
    const its = give(`${base}${letter.toUpperCase()}`, `${base[0]}_${letter}`, c[indexOf(axis)]!, `the ${base}’s ${letter}`); // prettier-ignore
    work(letter, letter, signOf(axis) > 0 ? plus(its, way) : minus(its, way), names.length ? '' : 'the point');
    names.push(letter);
  }
  return { ...parts, wanted: names.sort() };
}

/**
 * The sixteen numbers of the view matrix from position, target and up vector, all in canonical world
 * space; `m0` … `m15` as the conventions list them. Null where the gaze runs along up.
 */
export function viewFormulas(e: ConventionCodec, eye: Vec3, target: Vec3, upVector: Vec3): Formulas | null {
  if (!basisOfLookAt(eye, target, upVector)) return null;
  const parts: Parts = { given: [], steps: [] };
  const { give, work } = adders(parts);
  const { view, world, matrix } = e.conventions;
  const vector = (own: string, tex: string, v: Vec3, says: string) =>
    [...'xyz'].map((letter, i) =>
      give(`${own}${letter.toUpperCase()}`, `${tex}_${letter}`, v[i]!, `${says} ${letter}`),
    );
  const eyes = vector('eye', 'e', e.toWorld(eye), 'the eye’s');
  const targets = vector('target', 't', e.toWorld(target), 'the target’s');
  const ups = vector('up', 'w', e.toWorld(upVector), 'the up vector’s');
  const square = (of: readonly Expression[]) => call('sqrt', plus(...of.map((one) => product(one, one))));
  const three = (own: string, tex: string, make: (i: number) => Expression, says: string) =>
    [...'xyz'].map((letter, i) => work(`${own}${letter.toUpperCase()}`, `${tex}_${letter}`, make(i), i ? '' : says));
  const cross = (a: readonly Expression[], b: readonly Expression[], i: number) => {
    const [j, k] = [(i + 1) % 3, (i + 2) % 3];
    return minus(product(a[j]!, b[k]!), product(a[k]!, b[j]!));
  };
  const right0 = handednessOf(world) === 'right';
  const d = three('d', 'd', (i) => minus(targets[i]!, eyes[i]!), 'from the eye to the target');
  const length = work('distance', '\\lvert d\\rvert', square(d));
  const f = three('ahead', 'f', (i) => quotient(d[i]!, length), 'ahead, of length 1');
  const c = three('c', 'c', (i) => (right0 ? cross(f, ups, i) : cross(ups, f, i)), right0 ? 'ahead × up' : 'up × ahead: the world is left-handed'); // prettier-ignore
  const cLength = work('cLength', '\\lvert c\\rvert', square(c));
  const r = three('right', 'r', (i) => quotient(c[i]!, cLength), 'right, of length 1');
  const u = three('above', 'u', (i) => (right0 ? cross(r, f, i) : cross(f, r, i)), 'up, square to both');
  const axes = { right: r, up: u, forward: f };
  const rowOf = (letter: 'x' | 'y' | 'z') => {
    const direction = (Object.keys(view) as (keyof AxisFrame)[]).find((one) => letterOf(view[one]) === letter)!;
    return { direction, sign: signOf(view[direction]) };
  };
  const rows = (['x', 'y', 'z'] as const).map(rowOf);
  // Where each number of the list stands in the matrix for column vectors, asked of the conventions.
  const listed = e.toList(mat4(Array.from({ length: 16 }, (_, at) => at)));
  const wanted: string[] = [];
  for (const [place, at] of listed.entries()) {
    const [row, column] = [Math.floor(at / 4), at % 4];
    const own = `m${place}`;
    wanted.push(own);
    if (row === 3) {
      work(own, `m_{${place}}`, number(column === 3 ? 1 : 0));
      continue;
    }
    const { direction, sign } = rows[row]!;
    const axis = axes[direction];
    const along = plus(...axis.map((one, i) => product(one, eyes[i]!)));
    const of = column < 3 ? signed(sign, axis[column]!) : sign > 0 ? negative(along) : along;
    work(own, `m_{${place}}`, of, place === 0 ? `the sixteen numbers, ${matrix.storage}` : '');
  }
  return { ...parts, wanted };
}

/** The distance ahead of a point, for going back from its pixel. */
export const aheadOf = (frame: CameraFrame, point: Vec3): number => worldToViewRuf(frame, point)[2];
