import { indexOf, signOf } from '../conventions/axes';
import type { ConventionCodec } from '../conventions/codec';
import type { FaultName, Place } from './faults';

/** Lines of code as the engine seems to have them, and as they should be. */
export interface MendCode {
  readonly wrong: readonly string[];
  readonly right: readonly string[];
}
/** What the lines depend on beside the conventions. */
export interface MendFacts {
  readonly place: Place | 'matrices';
  readonly perspective: boolean;
  /** Of a half pixel and a device pixel ratio: which way it went. */
  readonly up?: boolean;
}

const directions = ['right', 'up', 'forward'] as const;
type Direction = (typeof directions)[number];
const minus = (negative: boolean, text: string): string => (negative ? (text.startsWith('-') ? text.slice(1) : `-${text}`) : text); // prettier-ignore

/** The terms of the depth row for NDC depths of near and far: clip depth = slope·ahead + constant. */
function depthTerms(near: number, far: number, perspective: boolean, infinite = false): readonly [string, string] {
  const product = (k: number, text: string) => (k === 0 ? '' : `${k < 0 ? '-' : '+'}${Math.abs(k) === 1 ? '' : `${Math.abs(k)} * `}${text}`); // prettier-ignore
  const sum = (...terms: string[]) => terms.filter(Boolean).join(' ').replace(/^\+/, '').replace(/ ([+-])/g, ' $1 ') || '0'; // prettier-ignore
  const over = (text: string) => (text.includes(' + ') || text.includes(' - ') ? `(${text}) / (far - near)` : text === '0' ? '0' : `${text} / (far - near)`); // prettier-ignore
  if (!perspective) return [over(String(far - near)), over(sum(product(near, 'far'), product(-far, 'near')))];
  if (infinite) return [String(far), sum(product(near - far, 'near'))];
  return [over(sum(product(far, 'far'), product(-near, 'near'))), over(sum(product(near - far, 'far * near')))];
}

/**
 * The mend of a fault as lines of code in the conventions: indices into the listed sixteen numbers,
 * signs as the axes have them, products in the order of the vectors.
 */
export function mendCode(fault: FaultName, e: ConventionCodec, facts: MendFacts): MendCode {
  const { view, ndc, screen, matrix, angles } = e.conventions;
  const rightHanded = e.handedness.world === 'right';
  const at = (name: string, row: number, column: number) => `${name}[${e.listsColumns ? 4 * column + row : 4 * row + column}]`; // prettier-ignore
  const worldUp = `vec3(${e.toWorld([0, 1, 0]).join(', ')})`;
  const cross = (a: string, b: string, turned = false) => (rightHanded !== turned ? `cross(${a}, ${b})` : `cross(${b}, ${a})`); // prettier-ignore
  const product = (first: string, then: string) => (matrix.vectors === 'column' ? `${then} * ${first}` : `${first} * ${then}`); // prettier-ignore
  const times = (left: string, right: string) => product(right, left);
  const row = (name: Direction, negated = false) => `setRow(view, ${indexOf(view[name])}, ${minus((signOf(view[name]) < 0) !== negated, name)});`; // prettier-ignore
  const translations = (value: (name: Direction) => string) => directions.map((name) => `${at('view', indexOf(view[name]), 3)} = ${value(name)};`); // prettier-ignore
  const ownTranslation = (sign: number) => translations((name) => minus(sign * signOf(view[name]) < 0, `dot(${name}, eye)`)); // prettier-ignore
  const inDegrees = angles.unit === 'degrees';
  const fov = (share: number) => (inDegrees ? `tan(fov * PI / ${180 / share})` : share === 1 ? 'tan(fov)' : `tan(fov / ${1 / share})`); // prettier-ignore
  const column = (name: Direction) => indexOf(view[name]);
  const p = (r: number, name: Direction | null) => at('projection', r, name ? column(name) : 3);
  const signed = (name: Direction, text: string) => minus(signOf(view[name]) < 0, text);
  const upward = (text: string) => minus(ndc.up === '-y', text);
  const scales = (x: string, y: string) => [`${p(0, 'right')} = ${signed('right', x)};`, `${p(1, 'up')} = ${upward(signed('up', y))};`]; // prettier-ignore
  const depth = (near: number, far: number, infinite = false, negated = false) => {
    const [slope, constant] = depthTerms(near, far, facts.perspective, infinite);
    const grouped = slope.includes(' ') && !slope.startsWith('(') && !slope.startsWith('-') ? `(${slope})` : slope;
    return [
      `${p(2, 'forward')} = ${minus(signOf(view.forward) < 0 !== negated, grouped)};`,
      `${p(2, null)} = ${constant};`,
    ];
  };
  /** A sense of an angle as a turn about an axis by the right hand, in the numbers of these axes. */
  const about = (axis: string, angle: string, positive: boolean, turned = false) => `rotation(${axis}, ${minus((positive === rightHanded) === turned, angle)})`; // prettier-ignore
  const toScreen = (axis: 'x' | 'y', flipped = false): string => {
    const down = axis === 'y' && e.screenFollowsNdc === false;
    const value = `(${down !== flipped ? `1 - ndc.${axis}` : `ndc.${axis} + 1`}) / 2 * ${axis === 'x' ? 'width' : 'height'}`;
    return `${axis} = viewport.${axis} + ${value}${screen.pixelCentre === 0 ? ' - 0.5' : ''};`;
  };
  const lines = (wrong: string | readonly string[], right: string | readonly string[]): MendCode => ({ wrong: [wrong].flat(), right: [right].flat() }); // prettier-ignore
  const otherRange = (): readonly [number, number] => {
    const low = Math.min(ndc.near, ndc.far) === -1 ? 0 : -1;
    return ndc.near < ndc.far ? [low, 1] : [1, low];
  };
  const whole = facts.place === 'matrices' ? 'matrix' : facts.place;
  switch (fault) {
    case 'anglesInOtherUnit':
      return inDegrees
        ? lines('(sin(yaw), cos(yaw), …)', '(sin(yaw * PI / 180), cos(yaw * PI / 180), …)')
        : lines('(sin(yaw * PI / 180), cos(yaw * PI / 180), …)', '(sin(yaw), cos(yaw), …)');
    case 'yawNegated':
      return lines(`turn = ${about(worldUp, 'yaw', angles.yaw === 'left', true)};`, `turn = ${about(worldUp, 'yaw', angles.yaw === 'left')};`); // prettier-ignore
    case 'pitchNegated':
      return lines(`tilt = ${about('right', 'pitch', angles.pitch === 'up', true)};`, `tilt = ${about('right', 'pitch', angles.pitch === 'up')};`); // prettier-ignore
    case 'rollNegated':
      return lines(`bank = ${about('forward', 'roll', angles.roll === 'right', true)};`, `bank = ${about('forward', 'roll', angles.roll === 'right')};`); // prettier-ignore
    case 'rotationOrder':
      // Roll first of all, then pitch, then yaw about the world’s up.
      return lines(`orientation = ${times('tilt', times('turn', 'bank'))};`, `orientation = ${times('turn', times('tilt', 'bank'))};`); // prettier-ignore
    case 'upNotSquare':
      return lines(`up = ${worldUp};`, `up = ${cross('right', 'forward')};`);
    case 'notNormalised':
      return lines(`right = ${cross('forward', worldUp)};`, `right = normalize(${cross('forward', worldUp)});`);
    case 'forwardNegated':
      return lines('forward = normalize(eye - target);', 'forward = normalize(target - eye);');
    case 'aheadNegated':
      return lines(row('forward', true), row('forward'));
    case 'rightNegated':
      return lines(`right = normalize(${cross('forward', worldUp, true)});`, `right = normalize(${cross('forward', worldUp)});`); // prettier-ignore
    case 'upNegated':
      return lines(`up = ${cross('right', 'forward', true)};`, `up = ${cross('right', 'forward')};`);
    case 'translationNotNegated':
      return lines(ownTranslation(1), ownTranslation(-1));
    case 'translationNotRotated':
      return lines(
        ['x', 'y', 'z'].map((letter, i) => `${at('view', i, 3)} = -eye.${letter};`),
        ownTranslation(-1),
      );
    case 'translationMissing':
      return lines(translations(() => '0'), ownTranslation(-1)); // prettier-ignore
    case 'fovInOtherUnit':
      return inDegrees ? lines('t = tan(fov / 2);', `t = ${fov(0.5)};`) : lines('t = tan(fov * PI / 360);', `t = ${fov(0.5)};`); // prettier-ignore
    case 'halfAngleTwice':
      return lines(`t = ${fov(0.25)};`, `t = ${fov(0.5)};`);
    case 'halfAngleMissing':
      return lines(`t = ${fov(1)};`, `t = ${fov(0.5)};`);
    case 'fovAxis':
      return lines(scales('1 / t', 'aspect / t'), scales('1 / (aspect * t)', '1 / t'));
    case 'aspectInverted':
      return lines('aspect = height / width;', 'aspect = width / height;');
    case 'aspectMissing':
      return facts.perspective
        ? lines(scales('1 / t', '1 / t')[0]!, scales('1 / (aspect * t)', '1 / t')[0]!)
        : lines(scales('2 / tall', '2 / tall')[0]!, scales('2 / (aspect * tall)', '2 / tall')[0]!);
    case 'shiftLeftOut': {
      const name = facts.perspective ? 'forward' : null;
      const shift = (letter: 'x' | 'y') => {
        const own = `-shift.${letter}`;
        const value = name ? signed(name, own) : own;
        return letter === 'y' ? upward(value) : value;
      };
      return lines([`${p(0, name)} = 0;`, `${p(1, name)} = 0;`], [`${p(0, name)} = ${shift('x')};`, `${p(1, name)} = ${shift('y')};`]); // prettier-ignore
    }
    case 'farLeftOut':
      return lines(depth(ndc.near, ndc.far, true), depth(ndc.near, ndc.far));
    case 'depthRangeOther':
      return lines(depth(...otherRange()), depth(ndc.near, ndc.far));
    case 'depthReversed':
      return lines(depth(ndc.far, ndc.near), depth(ndc.near, ndc.far));
    case 'projectionOtherHanded': {
      if (facts.place === 'viewProjection') return lines(row('forward', true), row('forward'));
      const ahead = (negated: boolean) => {
        const isNegative = signOf(view.forward) < 0 !== negated;
        return [
          ...depth(ndc.near, ndc.far, false, negated),
          ...(facts.perspective ? [`${p(3, 'forward')} = ${isNegative ? '-1' : '1'};`] : []),
        ];
      };
      return lines(ahead(true), ahead(false));
    }
    case 'wNegated':
      return lines(`${p(3, 'forward')} = ${signOf(view.forward) < 0 ? '1' : '-1'};`, `${p(3, 'forward')} = ${signOf(view.forward) < 0 ? '-1' : '1'};`); // prettier-ignore
    case 'yFlipped':
    case 'xFlipped': {
      const axis = fault === 'yFlipped' ? 'y' : 'x';
      if (facts.place === 'points') return lines(toScreen(axis, true), toScreen(axis));
      if (facts.place === 'viewProjection') return lines(`negateRow(viewProjection, ${axis === 'y' ? 1 : 0});`, `// no row of the product is negated`); // prettier-ignore
      const [x, y] = scales(facts.perspective ? '1 / (aspect * t)' : '2 / (aspect * tall)', facts.perspective ? '1 / t' : '2 / tall') as [string, string]; // prettier-ignore
      const own = axis === 'y' ? y : x;
      const [left = '', value = ''] = own.replace(/;$/, '').split(' = ');
      return lines(`${left} = ${minus(true, value)};`, own);
    }
    case 'transposed':
      return lines(`upload(transpose(${whole}));`, `upload(${whole});`);
    case 'inverted':
      return facts.place === 'cameraToWorld'
        ? lines('cameraToWorld = view;', 'cameraToWorld = inverse(view);')
        : facts.place === 'view'
          ? lines('view = cameraToWorld;', 'view = inverse(cameraToWorld);')
          : lines(`${whole} = inverse(${whole});`, `// ${whole} as it was made`);
    case 'identity':
      return lines(`${whole} = identity;`, `${whole} = ${whole}Of(camera);`);
    case 'factorsSwapped':
      return lines(`viewProjection = ${product('projection', 'view')};`, `viewProjection = ${product('view', 'projection')};`); // prettier-ignore
    case 'notDivided':
      return lines('ndc = clip.xyz;', 'ndc = clip.xyz / clip.w;');
    case 'viewportMissing':
      return lines(['x = ndc.x;', 'y = ndc.y;'], [toScreen('x'), toScreen('y')]);
    case 'viewportOffset':
      return lines([toScreen('x').replace('viewport.x + ', ''), toScreen('y').replace('viewport.y + ', '')], [toScreen('x'), toScreen('y')]); // prettier-ignore
    case 'devicePixelRatio':
      return lines(`screen ${facts.up ? '*' : '/'}= devicePixelRatio;`, `// screen is in the viewport’s own pixels`);
    case 'halfPixel':
      return lines(`screen ${facts.up ? '+' : '-'}= 0.5;`, `// the middle of the first pixel is ${screen.pixelCentre}`);
  }
}
