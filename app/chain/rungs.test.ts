import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chainOf, redrive, type Rung } from '../../core/convert/chain';
import { viewRufToWorld, pictureToViewRuf } from '../../core/convert/project';
import { codecOf } from '../../core/conventions/codec';
import { aheadAt, conventions, frames, picturePositions, shares } from '../../core/testing/arbitraries';
import { pointFormOf } from '../state/points';
import { axisNames, heldNumbers, outOfRange, rungNumbers } from './rungs';
import { runs } from '../../core/testing/seed';

const rungs: Rung[] = ['local', 'world', 'view', 'clip', 'ndc', 'screen'];

describe('the numbers of a rung', () => {
  it('are the held ones where it drives and the chain’s where it does not, in any conventions, and read back', () => {
    fc.assert(
      fc.property(frames, picturePositions, shares, conventions, (frame, [x, y], share, c) => {
        const e = codecOf(c);
        const written = { codec: e, frame, points: pointFormOf(e, false) };
        const world = viewRufToWorld(
          frame,
          pictureToViewRuf(frame, x, y, Math.min(aheadAt(frame, share), frame.near + 100)),
        );
        const chain = chainOf(frame, null, { rung: 'world', value: world });
        if (!chain.ok) throw new Error(chain.reason);
        for (const rung of rungs) {
          const drive = redrive(frame, null, { rung: 'world', value: world }, rung);
          if (!drive.ok) throw new Error(drive.reason);
          const { show, read } = heldNumbers(rung, written);
          const shown = show(drive.value.value);
          const passive = rungNumbers(rung, chain.value, written)!;
          expect(passive).toHaveLength(axisNames(rung, written.points).length);
          shown.forEach((v, i) => expect(Math.abs(v - passive[i]!)).toBeLessThan(1e-6 * (1 + Math.abs(v))));
          read(shown).forEach((v, i) =>
            expect(Math.abs(v - drive.value.value[i]!)).toBeLessThan(1e-9 * (1 + Math.abs(v))),
          );
        }
      }),
      { numRuns: runs(200) },
    );
  });

  it('are pairs on the letters of right and up where the world is flat, and read back into its plane', () => {
    fc.assert(
      fc.property(conventions, fc.double({ min: -99, max: 99, noNaN: true }), (c, v) => {
        const e = codecOf(c);
        const points = pointFormOf(e, true);
        const shown = points.show([v, 2, 0]);
        expect(shown.map(Math.abs)).toEqual([Math.abs(v), 2]);
        expect(points.read(shown)).toEqual([v, 2, 0]);
        expect(points.letters).toEqual([c.world.right[1], c.world.up[1]]);
      }),
    );
  });

  it('mark what lies outside the picture', () => {
    fc.assert(
      fc.property(frames, (frame) => {
        const chain = chainOf(frame, null, {
          rung: 'world',
          value: viewRufToWorld(frame, pictureToViewRuf(frame, 1.5, 0, aheadAt(frame, 0.5))),
        });
        if (!chain.ok) throw new Error(chain.reason);
        expect(outOfRange('screen', chain.value)).toEqual([true, false, false]);
        expect(outOfRange('world', chain.value)).toEqual([]);
      }),
    );
  });
});
