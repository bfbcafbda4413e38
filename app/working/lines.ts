import type { CameraFrame } from '../../core/camera/frame';
import { axisVector, toParts, type SignedAxis } from '../../core/conventions/axes';
import { pictureToWorld } from '../../core/convert/unproject';
import { pixelToPicture, rayThrough, sizeAt, worldToParts } from '../../core/convert/project';
import { addScaled, dot } from '../../core/math/vec3';
import { depthChoiceOf } from '../../formats/camera';
import type { Situation } from '../state/situation';
import { edges, flat, flatBack } from './flat';
import { four, letters, scaleLines, type Facts, type Maker, type Subject } from './maker';
import { between, normal } from './nodes';
import { pointer } from './pointer';
import { derivative, edge, rectangle } from './reach';
import { typesetter, type Digits, type Line, type Typesetter } from './tex';

/*
 * The workings: each result as the lines that lead to it, in the conventions in force, every number with where it comes from. The test puts the lines through an
 * evaluator of its own and compares.
 */

const short = (v: number) => (Number.isInteger(v) && Math.abs(v) < 1e6 ? String(v) : String(Number(v.toPrecision(6))));
/** Numbers as a page of working shows them: six digits. Powers of ten are written out, so that they can be read as a product. */
export const shortDigits: Digits = (v) => powers(short(v));
/** Every digit: what a test evaluates. */
export const allDigits: Digits = (v) => powers(String(v));
const powers = (text: string) => {
  const [mantissa, exponent] = text.split('e');
  return exponent === undefined ? text : `${mantissa}\\cdot 10^{${Number(exponent)}}`;
};

/** The lines of a working, or none where there is nothing to work out. */
export function workingOf(name: WorkingName, facts: Facts, digits: Digits, subject: Subject = {}): Line[] {
  return makers[name](facts, typesetter(digits, facts.expression.conventions.matrix.vectors === 'row'), subject);
}

/** The chain from the body's own space to the screen. */
const screen: Maker = ({ chain, expression: e, frame, project, placed }, t) => {
  if (!chain.ok) return [];
  const { local, world, parts, clip, picture } = chain.value;
  const own = project.probe.body === null ? undefined : placed.get(project.probe.body);
  const at = e.toWorld(world);
  const view = e.toView(parts);
  const c = e.toClip(clip);
  const lines: Line[] = [];
  if (own)
    lines.push({
      ...{ id: 'line-world', says: 'Local to world', name: 'p' },
      formula: t.product(
        t.matrix(e.toModel(own.toWorld), () => 'body'),
        four(e.toWorld(local), t, 'probe'),
      ),
      result: [...at, 1],
    });
  const probed = own ? 'line-world' : 'probe';
  lines.push({
    ...{ id: 'line-view', says: 'World to view', name: 'v' },
    formula: t.product(
      t.matrix(e.matrix(frame, 'view'), (_, column) => (column === 3 ? 'eye' : 'gaze')),
      four(at, t, probed),
    ),
    result: [...view, 1],
  });
  lines.push({
    ...{ id: 'line-clip', says: 'View to clip', name: 'c' },
    formula: t.product(
      t.matrix(e.matrix(frame, 'projection'), () => 'lens'),
      four(view, t, 'line-view'),
    ),
    result: c,
  });
  if (!picture.ok) return lines;
  const n = e.toNdc(picture.value);
  for (const i of [0, 1, 2])
    lines.push({
      ...{ id: `line-ndc-${letters[i]}`, says: i === 0 ? 'Divide by w' : '', name: `n_${letters[i]}` },
      formula: t.fraction(t.number(c[i]!, 'line-clip'), t.number(c[3], 'line-clip')),
      result: [n[i]!],
    });
  return [...lines, ...viewportLines(n, e, frame, t, 'line-ndc'), ...depthLine(n[2], e, t)];
};

/** NDC to the pixels of the screen. */
function viewportLines(
  n: readonly number[],
  e: Situation['expression'],
  { viewport: v }: Pick<CameraFrame, 'viewport'>,
  t: Typesetter,
  from: string,
): Line[] {
  const whole = e.conventions.screen.pixelCentre === 0;
  const line = (i: 0 | 1, origin: number, size: number, flipped: boolean): Line => {
    const ndc = t.number(n[i]!, `${from}-${letters[i]}`);
    const over = flipped ? `1-${t.term(n[i]!, `${from}-${letters[i]}`)}` : `${ndc}+1`;
    const formula = `${origin ? `${t.number(origin, 'viewport')}+` : ''}${t.fraction(over, '2')}\\cdot ${t.number(size, 'viewport')}${whole ? '-0.5' : ''}`;
    const share = (flipped ? 1 - n[i]! : n[i]! + 1) / 2;
    return {
      ...{ id: `line-screen-${letters[i]}`, says: i === 0 ? 'Viewport' : '', name: letters[i]! },
      formula,
      result: [origin + share * size - (whole ? 0.5 : 0)],
    };
  };
  return [line(0, v.x, v.width, false), line(1, v.y, v.height, !e.screenFollowsNdc)];
}

function depthLine(z: number, { conventions: { ndc } }: Situation['expression'], t: Typesetter): Line[] {
  const [low, high] = [Math.min(ndc.near, ndc.far), Math.max(ndc.near, ndc.far)];
  return [
    {
      ...{ id: 'line-depth', says: 'Depth, 0 to 1', name: 'd' },
      formula: t.fraction(
        `${t.number(z, 'line-ndc-z')}-${t.term(low, 'conventions')}`,
        `${t.number(high, 'conventions')}-${t.term(low, 'conventions')}`,
      ),
      result: [(z - low) / (high - low)],
    },
  ];
}

/** The view matrix from the eye and the gaze: its last column is what takes the eye to the origin. */
const view: Maker = ({ frame, expression: e }, t) => {
  const eye = e.toWorld(frame.eye);
  return (['x', 'y', 'z'] as const).map((letter, i) => {
    const [r, u, f] = toParts(e.conventions.view, axisVector(`+${letter}` as SignedAxis));
    const axis = e.toWorld(addScaled(addScaled(addScaled([0, 0, 0], frame.right, r), frame.up, u), frame.forward, f));
    const products = axis.map((v, k) => `${t.term(v, 'gaze')}\\cdot ${t.term(eye[k]!, 'eye')}`);
    return {
      ...{ id: `line-t${letter}`, says: i === 0 ? 'What the view’s axes say of the eye' : '', name: `t_${letter}` },
      formula: `-(${products.join('+')})`,
      result: [-dot(axis, eye)],
    };
  });
};

/** The entries of the projection matrix from the lens, and the depth that they give. */
const projection: Maker = ({ frame, expression: e }, t) => {
  const { extents: x, near, far, kind } = frame;
  const { ndc } = e.conventions;
  const perspective = kind === 'perspective';
  const scale = (id: string, name: string, low: number, high: number, says: string): Line => ({
    ...{ id, says, name },
    formula: t.fraction(
      perspective ? `2\\cdot ${t.number(near, 'near')}` : '2',
      `${t.number(high, 'lens')}-${t.term(low, 'lens')}`,
    ),
    result: [(perspective ? 2 * near : 2) / (high - low)],
  });
  const lines = [
    scale('line-sx', 's_x', x.left, x.right, 'How much of the half picture one unit is, across and upward'),
    scale('line-sy', 's_y', x.bottom, x.top, ''),
  ];
  const [zn, zf] = [t.number(ndc.near, 'conventions'), t.number(ndc.far, 'conventions')];
  const difference = `(${zn}-${t.term(ndc.far, 'conventions')})`;
  if (!perspective) {
    const a = (ndc.near * far! - ndc.far * near) / (far! - near);
    return [
      ...lines,
      {
        ...{ id: 'line-A', says: 'Depth = A + B·f', name: 'A' },
        formula: t.fraction(
          `${zn}\\cdot ${t.term(far!, 'far')}-${t.term(ndc.far, 'conventions')}\\cdot ${t.term(near, 'near')}`,
          `${t.number(far!, 'far')}-${t.term(near, 'near')}`,
        ),
        result: [a],
      },
      {
        ...{ id: 'line-B', says: '', name: 'B' },
        formula: t.fraction(
          `${zf}-${t.term(ndc.near, 'conventions')}`,
          `${t.number(far!, 'far')}-${t.term(near, 'near')}`,
        ),
        result: [(ndc.far - ndc.near) / (far! - near)],
      },
    ];
  }
  const b = far === null ? (ndc.near - ndc.far) * near : ((ndc.near - ndc.far) * near * far) / (far - near);
  return [
    ...lines,
    {
      ...{ id: 'line-B', says: 'Depth = A + B/f', name: 'B' },
      formula:
        far === null
          ? `${difference}\\cdot ${t.number(near, 'near')}`
          : `${difference}\\cdot ${t.fraction(`${t.number(near, 'near')}\\cdot ${t.number(far, 'far')}`, `${t.number(far, 'far')}-${t.number(near, 'near')}`)}`,
      result: [b],
    },
    {
      ...{ id: 'line-A', says: '', name: 'A' },
      formula: `${zn}-${t.fraction(t.number(b, 'line-B'), t.number(near, 'near'))}`,
      result: [ndc.near - b / near],
    },
  ];
};

/** A pixel to the world: its ray, how far along it, and the point. */
const back: Maker = ({ frame, expression: e, project }, t) => {
  const [across, upward] = pixelToPicture(frame, project.back.pixel);
  const found = pictureToWorld(frame, across, upward, depthChoiceOf(project.back));
  const ray = rayThrough(frame, across, upward);
  if (!found.ok) return [];
  const { viewport: v } = frame;
  const [px, py] = e.toScreen(v, across, upward);
  const half = e.conventions.screen.pixelCentre === 0 ? '+0.5' : '';
  const n = e.toNdc({ across, upward, shares: { near: 1, far: 0 } });
  const share = (value: number, origin: number, size: number) =>
    t.fraction(
      `${t.number(value, 'pixel')}${half}${origin ? `-${t.term(origin, 'viewport')}` : ''}`,
      t.number(size, 'viewport'),
    );
  const down = share(py, v.y, v.height);
  const lines: Line[] = [
    {
      ...{ id: 'line-ndc-x', says: 'Pixel to NDC', name: 'n_x' },
      formula: `2\\cdot ${share(px, v.x, v.width)}-1`,
      result: [n[0]],
    },
    {
      ...{ id: 'line-ndc-y', says: '', name: 'n_y' },
      formula: e.screenFollowsNdc ? `2\\cdot ${down}-1` : `1-2\\cdot ${down}`,
      result: [n[1]],
    },
  ];
  const f = worldToParts(frame, found.value)[2];
  const range = f * ray.rangePerAhead;
  const origin = e.toWorld(ray.origin);
  const direction = e.toWorld(ray.direction);
  const world = e.toWorld(found.value);
  lines.push({
    ...{ id: 'line-range', says: 'Along the ray', name: 's' },
    formula: `${t.number(f, 'back')}\\cdot ${t.number(ray.rangePerAhead, 'line-ndc-x')}`,
    result: [range],
  });
  for (const i of [0, 1, 2])
    lines.push({
      ...{ id: `line-point-${letters[i]}`, says: i === 0 ? 'The point' : '', name: `p_${letters[i]}` },
      formula: `${t.number(origin[i]!, 'eye')}+${t.number(range, 'line-range')}\\cdot ${t.term(direction[i]!, 'line-ndc-x')}`,
      result: [world[i]!],
    });
  return lines;
};

/** Pixels that one unit spans at the probe. */
const scale: Maker = ({ frame, chain }, t) => {
  if (!chain.ok) return [];
  const f = chain.value.parts[2];
  return frame.kind === 'perspective' && !(f > 0) ? [] : scaleLines(frame, f, t);
};

/** Width and height seen at the probe's distance ahead. */
const seen: Maker = ({ frame, chain }, t) => {
  if (!chain.ok) return [];
  const { extents: x, near, kind } = frame;
  const f = chain.value.parts[2];
  if (kind === 'perspective' && !(f > 0)) return [];
  const size = sizeAt(frame, f);
  const line = (i: 0 | 1, name: string, low: number, high: number): Line => {
    const span = `${t.number(high, 'lens')}-${t.term(low, 'lens')}`;
    return {
      ...{ id: `line-${name}`, says: i === 0 ? 'Seen at the subject’s distance, across and upward' : '', name },
      formula:
        kind === 'perspective' ? `${t.fraction(span, t.number(near, 'near'))}\\cdot ${t.number(f, 'probe')}` : span,
      result: [size[i]],
    };
  };
  return [line(0, 'w', x.left, x.right), line(1, 'h', x.bottom, x.top)];
};

const makers = {
  ...{ screen, view, projection, back, scale, seen, flat, flatBack },
  ...{ edge, derivative, rectangle, edges, normal, between, pointer },
} satisfies Record<string, Maker>;
export type WorkingName = keyof typeof makers;
