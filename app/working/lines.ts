import { axisVector, toRuf, type SignedAxis } from '../../core/conventions/axes';
import { addScaled, dot } from '../../core/math/vec3';
import type { Facts, Subject, WorkingBuilder } from './builder';
import type { WorkingTable } from './builder';
import { typesetter, type Digits, type Line } from './tex';

/*
 * The workings: each result as the lines that lead to it, in the conventions in force, every number
 * with where it comes from. The test puts the lines through an evaluator of its own and compares.
 */

const short = (v: number) => (Number.isInteger(v) && Math.abs(v) < 1e6 ? String(v) : String(Number(v.toPrecision(6))));
/**
 * Numbers as a page of working shows them: six digits. Powers of ten are written out, so that they
 * can be read as a product.
 */
export const shortDigits: Digits = (v) => powers(short(v));
/** Every digit: what a test evaluates. */
export const allDigits: Digits = (v) => powers(String(v));
const powers = (text: string) => {
  const [mantissa, exponent] = text.split('e');
  return exponent === undefined ? text : `${mantissa}\\cdot 10^{${Number(exponent)}}`;
};

/** The lines of a working, or none where there is nothing to work out. */
export const linesOf = (build: WorkingBuilder, facts: Facts, digits: Digits, subject: Subject = {}): Line[] =>
  build(facts, typesetter(digits, facts.codec.conventions.matrix.vectors === 'row'), subject);

/**
 * The view matrix from the eye and the gaze: its last column is what takes the eye to the origin.
 */
const view: WorkingBuilder = ({ frame, codec: e }, t) => {
  const eye = e.toWorld(frame.eye);
  return (['x', 'y', 'z'] as const).map((letter, i) => {
    const [r, u, f] = toRuf(e.conventions.view, axisVector(`+${letter}` as SignedAxis));
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
const projection: WorkingBuilder = ({ frame, codec: e }, t) => {
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
      formula: `${zn}-${t.fraction(t.term(b, 'line-B'), t.number(near, 'near'))}`,
      result: [ndc.near - b / near],
    },
  ];
};

/** The workings that the Chain itself asks for. */
export const houseWorkings: WorkingTable = { view, projection };
