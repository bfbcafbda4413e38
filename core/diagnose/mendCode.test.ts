import { describe, expect, it } from 'vitest';
import { frameOf } from '../camera/frame';
import { codecOf } from '../conventions/codec';
import { defaultConventions, presets } from '../conventions/conventions';
import { radians } from '../math/angle';
import { projectionWith, viewWith, type Intended } from './engine';
import { faultNames } from './faults';
import { mendCode } from './mendCode';

const made = frameOf(
  {
    position: [4, 3, 9],
    orientation: { kind: 'angles', yaw: 0.4, pitch: -0.2, roll: 0 },
    projection: { kind: 'perspective', near: 0.5, far: 80, lens: { verticalFov: radians(50) }, shift: [0.2, -0.1] },
  },
  { x: 0, y: 0, width: 1280, height: 720 },
);
if (!made.ok) throw new Error('a proper camera');
const frame = made.value;

describe.each(Object.entries({ ...presets, 'row vectors': { ...defaultConventions, matrix: { vectors: 'row', storage: 'row-major' } } } as typeof presets))('in the conventions of %s', (_, conventions) => {
  const e = codecOf(conventions);
  const angles = { yaw: 0.4, pitch: -0.2, roll: 0 };
  const intended: Intended = { frame, e, angles, plainUp: true, field: { kind: 'verticalFov', number: e.toAngle(radians(50)) }, isFrustum: false, devicePixelRatio: 2 };

  it('every fault has lines, other ones before and after', () => {
    for (const fault of faultNames) {
      const code = mendCode(fault, e, { place: 'projection', perspective: true, up: true });
      expect(code.wrong.join(), fault).not.toBe(code.right.join());
      for (const line of [...code.wrong, ...code.right]) expect(line, fault).not.toMatch(/undefined|NaN|--|\+ -/);
    }
  });

  /** The lines that set numbers, run. */
  const run = (lines: readonly string[]): Record<string, number> => {
    const { extents: x, near, far } = frame;
    const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, v, i) => sum + v * b[i]!, 0);
    const own = { right: e.toWorld(frame.right), up: e.toWorld(frame.up), forward: e.toWorld(frame.forward), eye: e.toWorld(frame.eye) };
    const out: Record<string, number> = {};
    for (const line of lines) {
      const [, name, index, value] = /^(\w+)\[(\d+)\] = (.*);$/.exec(line)!;
      // The lines of the code itself, with the numbers of this camera.
      const eye = { x: own.eye[0], y: own.eye[1], z: own.eye[2] };
      const text = value!.replace(/dot\((\w+), eye\)/g, (_all, direction: 'right') => `(${dot(own[direction], own.eye)})`);
      out[`${name}[${index}]`] = new Function('eye', 'near', 'far', 't', 'aspect', 'shift', `return ${text}`)(eye, near, far, Math.tan(radians(25)), 1280 / 720, { x: 0.2, y: -0.1 }) as number;
      expect(x.right).toBeGreaterThan(x.left);
    }
    return out;
  };

  it.each(['translationNotNegated', 'translationNotRotated', 'translationMissing'] as const)('the lines of %s give the numbers of the view, wrong and right', (fault) => {
    const code = mendCode(fault, e, { place: 'view', perspective: true });
    for (const [lines, view] of [[code.wrong, e.toList(viewWith(intended, [fault]))], [code.right, e.toList(viewWith(intended, []))]] as const)
      for (const [name, value] of Object.entries(run(lines))) expect(value, name).toBeCloseTo(view[Number(/\d+/.exec(name)![0])]!, 9);
  });

  it.each(['fovAxis', 'aspectMissing', 'shiftLeftOut', 'farLeftOut', 'depthRangeOther', 'depthReversed', 'wNegated', 'projectionOtherHanded', 'yFlipped', 'xFlipped'] as const)('the lines of %s give the numbers of the projection, wrong and right', (fault) => {
    const code = mendCode(fault, e, { place: 'projection', perspective: true });
    for (const [lines, projection] of [[code.wrong, e.toList(projectionWith(intended, [fault]))], [code.right, e.toList(projectionWith(intended, []))]] as const)
      for (const [name, value] of Object.entries(run(lines))) expect(value, `${name} of ${lines.join(' ')}`).toBeCloseTo(projection[Number(/\d+/.exec(name)![0])]!, 9);
  });
}); // prettier-ignore
