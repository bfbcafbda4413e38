import { seeded } from './seed';

/*
 * An engine that makes a camera's numbers in some conventions and commits faults on the way: written
 * from the contract's words apart from the code that finds faults, and sharing nothing with it. Vectors
 * are triples (to the right, up, ahead); matrices are rows of numbers in the letters in force.
 */

type V = readonly [number, number, number];
type M = readonly (readonly number[])[];

/** Creates a generator of random numbers and choices. */
export function dice(seed: number) {
  let state = seeded(seed);
  const next = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
  return {
    real: (low: number, high: number) => low + (high - low) * next(),
    /** Away from 0, either way. */
    apart: (low: number, high: number) => (next() < 0.5 ? -1 : 1) * (low + (high - low) * next()),
    of: <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!,
    chance: (share: number) => next() < share,
  };
}
export type Dice = ReturnType<typeof dice>;

const letters = [['x', 'y', 'z'], ['x', 'z', 'y'], ['y', 'x', 'z'], ['y', 'z', 'x'], ['z', 'x', 'y'], ['z', 'y', 'x']]; // prettier-ignore
const axesBy = (d: Dice) => {
  const [right, up, forward] = d.of(letters).map((letter) => `${d.of(['+', '-'])}${letter}`);
  return { right: right!, up: up!, forward: forward! };
};
export const conventionsBy = (d: Dice) => ({
  world: axesBy(d),
  view: axesBy(d),
  ndc: {
    up: d.of(['+y', '-y']),
    ...d.of([{ near: -1, far: 1 }, { near: 0, far: 1 }, { near: 1, far: 0 }, { near: 1, far: -1 }]),
  },
  screen: { origin: d.of(['top-left', 'bottom-left']), pixelCentre: d.of([0, 0.5]) },
  matrix: { vectors: d.of(['column', 'row']), storage: d.of(['column-major', 'row-major']) },
  angles: {
    unit: d.of(['degrees', 'radians']),
    yaw: d.of(['right', 'left']),
    pitch: d.of(['up', 'down']),
    roll: d.of(['right', 'left']),
  },
}); // prettier-ignore
type Conventions = ReturnType<typeof conventionsBy>;

/** A camera by its parts (radians), and the request that says it. */
export interface Shot {
  readonly c: Conventions;
  readonly viewport: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly eye: V;
  readonly yaw: number;
  readonly pitch: number;
  readonly roll: number;
  readonly said: 'angles' | 'lookAt' | 'basis';
  readonly lens: 'verticalFov' | 'horizontalFov' | 'diagonalFov' | 'orthographic' | 'frustum';
  /** The number of the field of view in radians; of orthographic the height. */
  readonly field: number;
  readonly near: number;
  readonly far: number | null;
  readonly shift: readonly [number, number];
  readonly ratio: number;
}

export function shotBy(d: Dice): Shot {
  const said = d.of(['angles', 'angles', 'lookAt', 'basis'] as const);
  const lens = d.of(['verticalFov', 'verticalFov', 'horizontalFov', 'diagonalFov', 'orthographic', 'frustum'] as const);
  return {
    ...{ c: conventionsBy(d), said, lens },
    viewport: { x: d.of([0, 12]), y: d.of([0, 7]), width: d.of([640, 1280, 1920]), height: d.of([480, 720, 1080]) },
    eye: [d.apart(1, 40), d.apart(1, 40), d.apart(1, 40)],
    yaw: d.apart(0.1, 2.9),
    pitch: d.apart(0.1, 1.3),
    roll: said !== 'lookAt' && d.chance(0.5) ? d.apart(0.1, 0.9) : 0,
    field: lens === 'orthographic' ? d.real(4, 60) : d.real(0.4, 1.5),
    near: d.real(0.2, 3),
    far: lens !== 'orthographic' && d.chance(0.2) ? null : d.real(40, 400),
    shift: d.chance(0.5) ? [d.apart(0.05, 0.4), d.apart(0.05, 0.4)] : [0, 0],
    ratio: d.of([1.5, 2, 3]),
  };
}

const at = { x: 0, y: 1, z: 2 } as const;
type Axes = Conventions['world'];
const order = ['right', 'up', 'forward'] as const;
const indexIn = (axes: Axes, k: number): number => at[axes[order[k]!][1] as 'x'];
const signIn = (axes: Axes, k: number): number => (axes[order[k]!].startsWith('+') ? 1 : -1);
/** (Right, up, ahead) as the numbers that an engine has. */
export const written = (axes: Axes, v: V): number[] => {
  const out = [0, 0, 0];
  for (const k of [0, 1, 2]) out[indexIn(axes, k)] = signIn(axes, k) * v[k]!;
  return out;
};
const perUnit = ({ angles }: Conventions): number => (angles.unit === 'degrees' ? 180 / Math.PI : 1);
const senses = ({ angles }: Conventions): V => [angles.yaw === 'right' ? 1 : -1, angles.pitch === 'up' ? 1 : -1, angles.roll === 'right' ? 1 : -1]; // prettier-ignore

const dot = (a: V, b: V): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const times = (v: V, k: number): V => [v[0] * k, v[1] * k, v[2] * k];
const plus = (a: V, b: V): V => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** Right, up and ahead of a camera turned about the vertical, then about its right, then about its gaze. */
function axesOf(yaw: number, pitch: number, roll: number, pitchFirst: boolean): [V, V, V] {
  const [sy, cy, sp, cp] = [Math.sin(yaw), Math.cos(yaw), Math.sin(pitch), Math.cos(pitch)];
  const right: V = pitchFirst ? [cy, -sy * sp, -sy * cp] : [cy, 0, -sy];
  const up: V = pitchFirst ? [0, cp, -sp] : [-sy * sp, cp, -cy * sp];
  const ahead: V = pitchFirst ? [sy, cy * sp, cy * cp] : [sy * cp, sp, cy * cp];
  const [s, c] = [Math.sin(roll), Math.cos(roll)];
  return [plus(times(right, c), times(up, -s)), plus(times(up, c), times(right, s)), ahead];
}

/** Half the height and width of the picture for 1 ahead (orthographic: in units), by the field of view as it is meant. */
function halves(shot: Shot, aspect: number, angle: number, t: (a: number) => number): [number, number] {
  const own = t(angle);
  if (shot.lens === 'horizontalFov') return [own / aspect, own];
  if (shot.lens === 'diagonalFov') return [own / Math.hypot(1, aspect), (own / Math.hypot(1, aspect)) * aspect];
  return [own, own * aspect];
}

/** The request that asks for this camera. */
export function requestOf(shot: Shot, queries: readonly object[]) {
  const { c, viewport, eye, near, far, shift } = shot;
  const [right, up, forward] = axesOf(shot.yaw, shot.pitch, shot.roll, false);
  const s = senses(c);
  const unit = perUnit(c);
  const orientation =
    shot.said === 'angles'
      ? { yaw: s[0] * shot.yaw * unit, pitch: s[1] * shot.pitch * unit, roll: s[2] * shot.roll * unit }
      : shot.said === 'lookAt'
        ? { lookAt: written(c.world, plus(eye, times(forward, 7))) }
        : { right: written(c.world, right), up: written(c.world, up), forward: written(c.world, forward) };
  const [h, w] = halves(shot, viewport.width / viewport.height, shot.field, (a) => Math.tan(a / 2));
  const projection =
    shot.lens === 'orthographic'
      ? { kind: 'orthographic', near, far, height: shot.field, shift }
      : shot.lens === 'frustum'
        ? { kind: 'frustum', near, far, left: (shift[0] - 1) * w * near, right: (shift[0] + 1) * w * near, bottom: (shift[1] - 1) * h * near, top: (shift[1] + 1) * h * near }
        : { kind: 'perspective', near, far, [shot.lens]: shot.field * unit, shift }; // prettier-ignore
  return { astrolabe: 1, conventions: c, viewport, camera: { position: written(c.world, eye), orientation, projection }, queries }; // prettier-ignore
}

const multiply = (a: M, b: M): M => a.map((row) => [0, 1, 2, 3].map((k) => row.reduce((sum, v, i) => sum + v * b[i]![k]!, 0))); // prettier-ignore
const turnedOver = (m: M): M => [0, 1, 2, 3].map((r) => [0, 1, 2, 3].map((k) => m[k]![r]!));
const negatedRow = (m: M, row: number): M => m.map((one, r) => (r === row ? one.map((v) => -v) : one));
const identityMatrix: M = [0, 1, 2, 3].map((r) => [0, 1, 2, 3].map((k) => (r === k ? 1 : 0)));
/** By cofactors, apart from elimination. */
function inverse(m: M): M {
  const minor = (r: number, k: number): number => {
    const [a, b, c] = [0, 1, 2, 3].filter((i) => i !== r).map((i) => m[i]!.filter((_, j) => j !== k)) as [number[], number[], number[]]; // prettier-ignore
    return a[0]! * (b[1]! * c[2]! - b[2]! * c[1]!) - a[1]! * (b[0]! * c[2]! - b[2]! * c[0]!) + a[2]! * (b[0]! * c[1]! - b[1]! * c[0]!); // prettier-ignore
  };
  const sign = (r: number, k: number) => ((r + k) % 2 ? -1 : 1);
  const det = [0, 1, 2, 3].reduce((sum, k) => sum + sign(0, k) * m[0]![k]! * minor(0, k), 0);
  return [0, 1, 2, 3].map((r) => [0, 1, 2, 3].map((k) => (sign(r, k) * minor(k, r)) / det));
}
/** Rows over (right, up, ahead, 1) of one space, as numbers over its letters. */
const inLetters = (axes: Axes, rows: M): M =>
  rows.map((row) => {
    const out = [0, 0, 0, row[3]!];
    for (const k of [0, 1, 2]) out[indexIn(axes, k)] = signIn(axes, k) * row[k]!;
    return out;
  });

export interface Mistake {
  readonly fault: string;
  readonly place: 'view' | 'cameraToWorld' | 'projection' | 'viewProjection' | 'points' | 'matrices';
  /** Which way, of those that there are two of. */
  readonly up?: boolean;
}
/** Everything that an engine comes to: matrices as rows for column vectors, and its points. */
export interface Made {
  readonly view: M;
  readonly cameraToWorld: M;
  readonly projection: M;
  readonly viewProjection: M;
}

const other = (c: Conventions, a: number): number => (c.angles.unit === 'degrees' ? (a * 180) / Math.PI : (a * Math.PI) / 180); // prettier-ignore
type Has = (fault: string) => boolean;

function viewRows(shot: Shot, has: Has): { rows: [V, V, V]; translation: V } {
  const { c, eye } = shot;
  const unit = (a: number) => (has('anglesInOtherUnit') ? other(c, a) : a);
  const way = (fault: string) => (has(fault) ? -1 : 1);
  let [right, up, ahead] = axesOf(way('yawNegated') * unit(shot.yaw), way('pitchNegated') * unit(shot.pitch), way('rollNegated') * unit(shot.roll), has('rotationOrder')); // prettier-ignore
  if (has('notNormalised')) {
    // Ahead × world up is as long as ahead is level; up from it once more.
    const level = Math.hypot(ahead[0], ahead[2]);
    right = times(right, level);
    up = times(up, level);
  }
  if (has('upNotSquare')) up = [0, 1, 0];
  if (has('forwardNegated')) [right, ahead] = [times(right, -1), times(ahead, -1)];
  if (has('aheadNegated')) ahead = times(ahead, -1);
  if (has('rightNegated')) right = times(right, -1);
  if (has('upNegated')) up = times(up, -1);
  const k = has('translationMissing') ? 0 : has('translationNotNegated') ? 1 : -1;
  return { rows: [right, up, ahead], translation: [k * dot(right, eye), k * dot(up, eye), k * dot(ahead, eye)] };
}

function viewOf(shot: Shot, has: Has): M {
  const { c, eye } = shot;
  const { rows, translation } = viewRows(shot, has);
  const view: number[][] = [[0, 0, 0, 0], [0, 0, 0, 0], [0, 0, 0, 0], [0, 0, 0, 1]]; // prettier-ignore
  for (const k of [0, 1, 2]) {
    const [row] = inLetters(c.world, [[...rows[k]!, translation[k]!]]);
    view[indexIn(c.view, k)] = row!.map((v) => signIn(c.view, k) * v);
  }
  if (has('translationNotRotated')) written(c.world, eye).forEach((v, i) => (view[i]![3] = -v));
  return view;
}

function projectionOf(shot: Shot, has: Has): M {
  const { c, viewport, near: n, shift } = shot;
  const aspect = viewport.width / viewport.height;
  const angle = has('fovInOtherUnit') ? other(c, shot.field) : shot.field;
  const t = (a: number) => Math.tan(has('halfAngleMissing') ? a : has('halfAngleTwice') ? a / 4 : a / 2);
  let [h, w] = shot.lens === 'orthographic' ? [shot.field / 2, (shot.field / 2) * aspect] : halves(shot, aspect, angle, t); // prettier-ignore
  if (has('fovAxis')) [h, w] = [h / aspect, h];
  if (has('aspectInverted')) w = h / aspect;
  if (has('aspectMissing')) w = h;
  const [sx, sy] = has('shiftLeftOut') ? [0, 0] : shift;
  let [zn, zf] = [c.ndc.near, c.ndc.far];
  if (has('depthRangeOther')) {
    const low = Math.min(zn, zf) === 0 ? -1 : 0;
    [zn, zf] = zn < zf ? [low, 1] : [1, low];
  }
  if (has('depthReversed')) [zn, zf] = [zf, zn];
  const far = has('farLeftOut') ? null : shot.far;
  let rows: M;
  if (shot.lens === 'orthographic') {
    const d = (zf - zn) / (far! - n);
    rows = [[1 / w, 0, 0, -sx], [0, 1 / h, 0, -sy], [0, 0, d, zn - d * n], [0, 0, 0, 1]]; // prettier-ignore
  } else {
    const b = far === null ? (zn - zf) * n : ((zn - zf) * n * far) / (far - n);
    rows = [[1 / w, 0, -sx, 0], [0, 1 / h, -sy, 0], [0, 0, far === null ? zf : zn - b / n, b], [0, 0, 1, 0]]; // prettier-ignore
  }
  if (c.ndc.up === '-y') rows = negatedRow(rows, 1);
  if (has('wNegated')) rows = negatedRow(rows, 3);
  if (has('yFlipped')) rows = negatedRow(rows, 1);
  if (has('xFlipped')) rows = negatedRow(rows, 0);
  if (has('projectionOtherHanded')) rows = rows.map(([x, y, ahead, one]) => [x!, y!, -ahead!, one!]);
  return inLetters(c.view, rows);
}

function wholly(m: M, has: Has): M {
  let made = m;
  if (has('identity')) made = identityMatrix;
  if (has('inverted')) made = inverse(made);
  return has('transposed') ? turnedOver(made) : made;
}

/** The camera's numbers as an engine makes them; its camera's transform by the view's inverse or by itself. */
export function made(shot: Shot, mistakes: readonly Mistake[], ownTransform: boolean): Made {
  const has = (place: Mistake['place']): Has => (fault) => mistakes.some((one) => one.place === place && one.fault === fault); // prettier-ignore
  const view = wholly(viewOf(shot, has('view')), has('view'));
  const projection = wholly(projectionOf(shot, has('projection')), has('projection'));
  let product = has('viewProjection')('factorsSwapped') ? multiply(view, projection) : multiply(projection, view);
  if (has('viewProjection')('yFlipped')) product = negatedRow(product, 1);
  if (has('viewProjection')('xFlipped')) product = negatedRow(product, 0);
  const own: Has = (fault) => has('cameraToWorld')(fault) || (has('view')(fault) && !['transposed', 'inverted', 'identity'].includes(fault)); // prettier-ignore
  let transform = mistakes.some((one) => one.place === 'cameraToWorld') || ownTransform ? null : inverse(view);
  if (!transform && !ownTransform) transform = inverse(viewOf(shot, own));
  if (!transform) {
    const straight: Has = (fault) => own(fault) && !fault.startsWith('translation');
    const axes = viewOf(shot, straight);
    const eye = times(shot.eye, own('translationMissing') ? 0 : own('translationNotNegated') ? -1 : 1);
    transform = [...[0, 1, 2].map((r) => [axes[0]![r]!, axes[1]![r]!, axes[2]![r]!, written(shot.c.world, eye)[r]!]), [0, 0, 0, 1]]; // prettier-ignore
  }
  const all = { view, projection, viewProjection: wholly(product, has('viewProjection')), cameraToWorld: wholly(transform, has('cameraToWorld')) }; // prettier-ignore
  if (!mistakes.some((one) => one.place === 'matrices')) return all;
  return Object.fromEntries(Object.entries(all).map(([name, m]) => [name, turnedOver(m)])) as unknown as Made;
}

/** Points that a camera of this kind sees, as an engine prints them. */
export function pointsOf(shot: Shot, worlds: readonly V[], viewProjection: M, mistakes: readonly Mistake[]) {
  const { c, viewport: v } = shot;
  const own = mistakes.filter(({ place }) => place === 'points');
  const has: Has = (fault) => own.some((one) => one.fault === fault);
  return worlds.map((world) => {
    const p = [...written(c.world, world), 1];
    const [x, y, z, w] = viewProjection.map((row) => row.reduce((sum, m, i) => sum + m * p[i]!, 0)) as [number, number, number, number]; // prettier-ignore
    const k = has('notDivided') ? 1 : w;
    const [nx, ny, nz] = [x / k, y / k, z / k];
    let right = nx;
    let up = c.ndc.up === '+y' ? ny : -ny;
    if (has('xFlipped')) right = -right;
    if (has('yFlipped')) up = -up;
    const half = 0.5 - c.screen.pixelCentre;
    let screen = [v.x + ((right + 1) / 2) * v.width - half, v.y + ((c.screen.origin === 'top-left' ? 1 - up : up + 1) / 2) * v.height - half]; // prettier-ignore
    if (has('viewportMissing')) screen = [nx, ny];
    if (has('viewportOffset')) screen = [screen[0]! - v.x, screen[1]! - v.y];
    for (const { fault, up: way } of own) {
      if (fault === 'devicePixelRatio') screen = screen.map((one) => (way ? one * shot.ratio : one / shot.ratio));
      if (fault === 'halfPixel') screen = screen.map((one) => one + (way ? 0.5 : -0.5));
    }
    const { near, far } = c.ndc;
    return { world: written(c.world, world), screen, depth: (nz - Math.min(near, far)) / Math.abs(far - near) };
  });
}

/** Worlds spread ahead of the camera. */
export function worldsOf(shot: Shot, d: Dice): V[] {
  const [right, up, ahead] = axesOf(shot.yaw, shot.pitch, shot.roll, false);
  return Array.from({ length: 5 }, (_, i) => {
    const f = shot.near + 3 + 6 * i;
    const k = shot.lens === 'orthographic' ? shot.field / 4 : f * 0.3;
    return plus(shot.eye, plus(times(ahead, f), plus(times(right, d.real(-k, k)), times(up, d.real(-k, k)))));
  });
}

/** The sixteen numbers as the conventions list them. */
export function listed({ matrix }: Conventions, m: M): number[] {
  const own = matrix.vectors === 'column' ? m : turnedOver(m);
  return (matrix.storage === 'row-major' ? own : turnedOver(own)).flat();
}
/** A number as a float prints it, to so many figures. */
export const asFloat = (v: number, figures: number): number => Number(Math.fround(v).toPrecision(figures));

const angleMistakes = ['anglesInOtherUnit', 'yawNegated', 'pitchNegated', 'rotationOrder'];
const rowMistakes = ['forwardNegated', 'aheadNegated', 'rightNegated', 'upNegated'];
const translationMistakes = ['translationNotNegated', 'translationNotRotated', 'translationMissing'];

/** Every mistake that has a meaning for a camera. */
export function mistakesOf(shot: Shot): Mistake[] {
  const { lens, said, roll } = shot;
  const pose = [
    ...(said === 'angles' ? [...angleMistakes, ...(roll ? ['rollNegated'] : [])] : []),
    ...(said !== 'basis' && !roll ? ['upNotSquare', 'notNormalised'] : []),
    ...rowMistakes,
    ...translationMistakes,
  ];
  const field = ['verticalFov', 'horizontalFov', 'diagonalFov'].includes(lens);
  const round = lens !== 'orthographic';
  const projection = [
    ...(field ? ['fovInOtherUnit', 'halfAngleTwice', 'halfAngleMissing'] : []),
    ...(lens === 'verticalFov' ? ['fovAxis'] : []),
    ...(lens !== 'frustum' ? ['aspectInverted', 'aspectMissing'] : []),
    ...(shot.shift[0] ? ['shiftLeftOut'] : []),
    ...['depthRangeOther', 'depthReversed', 'projectionOtherHanded', 'yFlipped', 'xFlipped'],
    ...(round ? ['wNegated', ...(shot.far === null ? [] : ['farLeftOut'])] : []),
  ];
  const at = (place: Mistake['place'], faults: readonly string[]): Mistake[] =>
    faults.map((fault) => ({ fault, place }));
  const whole = ['transposed', 'inverted', 'identity'];
  return [
    ...at('view', [...pose, ...whole]),
    ...at('cameraToWorld', [...pose, ...whole]),
    ...at('projection', [...projection, ...whole]),
    ...at('viewProjection', ['factorsSwapped', 'yFlipped', 'xFlipped', ...whole]),
    ...at('matrices', ['transposed']),
    ...at('points', ['notDivided', 'viewportMissing', 'yFlipped', 'xFlipped', ...(shot.viewport.x || shot.viewport.y ? ['viewportOffset'] : [])]), // prettier-ignore
    ...[true, false].flatMap((up): Mistake[] => ['devicePixelRatio', 'halfPixel'].map((fault) => ({ fault, place: 'points', up }))), // prettier-ignore
  ];
}
