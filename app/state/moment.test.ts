import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { frameOf } from '../../core/camera/frame';
import { transformPoint } from '../../core/math/mat4';
import type { Vec3 } from '../../core/math/vec3';
import { saltmarrow } from '../../demo/saltmarrow';
import { emptySpace } from '../../demo/empty';
import { cameraInSpace } from '../../formats/camera';
import { installMovers, answerKey, momentOf, momentWith, seenIn } from './moment';
import { moves } from './span';

const harbour = saltmarrow();
const times = fc.double({ min: 0, max: 600, noNaN: true });
const origin: Vec3 = [0, 0, 0];
const place = (time: number, id: string): Vec3 =>
  transformPoint(momentOf(harbour, time).placed.get(id)!.toWorld, origin);

beforeEach(() => installMovers([]));

describe('a moment', () => {
  it('is the same object while project and time are', () => {
    expect(momentOf(harbour, 3)).toBe(momentOf(harbour, 3));
    expect(momentOf(harbour, 4)).not.toBe(momentOf(harbour, 3));
    expect(momentOf(structuredClone(harbour), 3)).not.toBe(momentOf(harbour, 3));
  });

  it('has bounds of the scene that pictures can be made of, however far scales carry a body', () => {
    const project = structuredClone(harbour);
    const shape = { kind: 'box', size: [1e30, 1e30, 1] } as const;
    for (let i = 0; i < 6; i++)
      project.bodies.push({
        ...{ id: `far${i}`, name: `Far ${i}`, parent: i ? `far${i - 1}` : null, rotation: [0, 0, 0, 1], shape },
        ...{ position: [1e30, 0, 0], scale: [1e30, 1e30, 1e30] },
      } as never);
    const { centre, half, radius } = momentOf(project).sceneBounds;
    for (const v of [...centre, ...half, radius]) expect(Math.abs(v)).toBeLessThanOrEqual(4e30);
  });

  it('says the same of bodies flat and placed', () => {
    fc.assert(
      fc.property(times, (time) => {
        const { poses, placed } = momentOf(harbour, time);
        expect(poses.ids).toEqual(harbour.bodies.map(({ id }) => id));
        poses.ids.forEach((id, i) => {
          const { toWorld, toLocal } = placed.get(id)!;
          expect([...poses.values.subarray(12 * i, 12 * i + 12)]).toEqual([...toWorld].slice(0, 12));
          // What stands somewhere can be asked about from there.
          const there = transformPoint(toLocal, transformPoint(toWorld, [1, 2, 3]));
          [1, 2, 3].forEach((v, k) => expect(there[k]).toBeCloseTo(v, 6));
        });
      }),
      { numRuns: 12 },
    );
  });

  it('moves what moves and what hangs on it, and shares all else with the moment at rest', () => {
    expect(moves(harbour)).toBe(true);
    expect(moves(emptySpace('new'))).toBe(false);
    const rest = momentOf(harbour, 0);
    const now = momentOf(harbour, 5);
    const byId = new Map(harbour.bodies.map((body) => [body.id, body]));
    const isMoving = (id: string | null): boolean => {
      if (id === null) return false;
      const { motion, parent } = byId.get(id)!;
      return motion !== null || isMoving(parent);
    };
    let shared = 0;
    for (const { id } of harbour.bodies)
      if (!isMoving(id)) {
        expect(now.placed.get(id)).toBe(rest.placed.get(id));
        shared++;
      } else expect(now.placed.get(id)).not.toBe(rest.placed.get(id));
    expect(shared).toBeGreaterThan(60);
    expect(shared).toBeLessThan(harbour.bodies.length);
  });

  it('comes round: a body with a period is where it was a period before', () => {
    for (const { id, motion, parent } of harbour.bodies) {
      if (!motion || motion.kind === 'drift' || motion.kind === 'path' || parent !== null) continue;
      const { period } = motion;
      for (const t of [0, 1.7, 23]) {
        const [before, after] = [place(t, id), place(t + Math.abs(period), id)];
        before.forEach((v, i) => expect(after[i]).toBeCloseTo(v, 6));
      }
    }
  });

  it('keeps the bounds of the scene while time goes on: nothing that is fitted to them jumps', () => {
    fc.assert(
      fc.property(times, (time) => {
        expect(momentOf(harbour, time).sceneBounds).toBe(momentOf(harbour).sceneBounds);
      }),
      { numRuns: 10 },
    );
  });

  it('has every body inside the bounds at rest', () => {
    const { sceneBounds, placed } = momentOf(harbour);
    for (const { toWorld } of placed.values())
      transformPoint(toWorld, origin).forEach((v, i) => expect(Math.abs(v - sceneBounds.centre[i]!)).toBeLessThanOrEqual(sceneBounds.half[i]! + 1e-9)); // prettier-ignore
  });

  it('shows the last camera that could be while one cannot, and says what is wrong', () => {
    const good = momentOf(harbour).frame;
    const spoilt = structuredClone(harbour);
    cameraInSpace(spoilt).projection.near = 1e6;
    const seen = seenIn(spoilt);
    expect(seen.problems[0]!.code).toBe('farNotBeyondNear');
    expect(seen.frame).toBe(good);
    // Another project's camera is no stand-in.
    const another = { ...structuredClone(spoilt), id: 'another' };
    expect(seenIn(another).frame).not.toBe(good);
    expect(seenIn(another).problems).not.toEqual([]);
  });

  it('is asked by a task with its own slice and answers, everything else shared', () => {
    const slice = { spread: 3 };
    const own = momentWith(
      momentOf(harbour, 2),
      slice,
      { [answerKey('one', 'counted')]: 7, [answerKey('other', 'summed')]: 8 },
      'one',
    );
    expect(own.slice).toBe(slice);
    expect(own.answer('counted')).toBe(7);
    expect(own.answer('other')).toBeUndefined();
    expect(own.placed).toBe(momentOf(harbour, 2).placed);
    expect(own.occluder).toBe(momentOf(harbour, 2).occluder);
    expect(momentWith(momentOf(harbour, 2), slice, own.answer('x') ?? {}, 'one')).not.toBe(own);
    // Another task's answer of some name is none of its own.
    expect(own.answer('summed')).toBeUndefined();
  });

  it('goes by what a task moves: the camera that is shown, while the document keeps its own', () => {
    const moved = structuredClone(harbour);
    installMovers([
      ({ rest, time, project }) => {
        const { viewport } = rest;
        const { projection } = cameraInSpace(project);
        if (projection.kind !== 'perspective') return null;
        const made = frameOf(
          {
            position: [time, 5, 30],
            orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
            projection: { kind: 'perspective', near: 0.1, far: 500, lens: { verticalFov: 1 } },
          },
          viewport,
        );
        return made.ok ? { frame: made.value } : null;
      },
    ]);
    const now = momentOf(moved, 4);
    expect(now.frame.eye).toEqual([4, 5, 30]);
    expect(now.rest).toBe(now.seen.frame);
    expect(now.rest.eye).not.toEqual(now.frame.eye);
    if (!now.chain.ok) throw new Error(now.chain.reason);
    expect(now.chain.value.viewRuf[0]).toBeCloseTo(now.chain.value.world[0] - 4, 9);
  });
});
