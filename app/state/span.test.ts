import { beforeEach, expect, it } from 'vitest';
import { emptySpace } from '../../demo/empty';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import type { ProjectBody } from '../../formats/project';
import { installSlices } from './slices';
import { moves, spanOf } from './span';

beforeEach(() => installSlices({}));
const base = saltmarrow();
const withMotion = (motion: ProjectBody['motion']) => ({ ...base, bodies: [{ ...base.bodies[0]!, motion }] });

it('is as long as the slowest round or way in the project', () => {
  expect(spanOf(base)).toBe(48);
  expect(spanOf(saltmarrowChart())).toBe(40);
  expect(spanOf(emptySpace('new'))).toBe(10);
  expect(spanOf(withMotion({ kind: 'drift', velocity: [1, 0, 0], axis: [0, 1, 0], turnRate: 0 }))).toBe(60);
  const keys = [{ time: 12.5, place: [0, 0, 0] as [number, number, number] }];
  expect(spanOf(withMotion({ kind: 'path', keys, turns: true, axis: [0, 1, 0] }))).toBe(13);
  expect(moves(withMotion(null))).toBe(false);
});

it('goes on for as long as a slice has the camera go, and a project whose camera goes is one that moves', () => {
  const slice = (span: number | null) => ({ version: 1, schema: null!, initial: () => ({}), span: () => span });
  installSlices({ one: slice(90), other: slice(null) });
  expect(spanOf({ ...base })).toBe(90);
  expect(moves(emptySpace('another'))).toBe(true);
  installSlices({ other: slice(null) });
  expect(moves(emptySpace('third'))).toBe(false);
});
