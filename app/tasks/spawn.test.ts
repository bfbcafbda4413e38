import { describe, expect, it } from 'vitest';
import { pointBatch } from '../../core/kernels/batch';
import { pointKernel } from '../../core/kernels/points';
import { spawnInSteps } from '../../core/spawn/spawn';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { allCameras, type Project } from '../../formats/project';
import { momentOf } from '../state/moment';
import { fieldFacts, type FieldPath } from '../sheet/fieldFacts';
import { installSlices, sliceOf, taskMoment } from '../state/slices';
import { radians } from '../../core/math/angle';
import { spawnState, type SpawnState } from './spawn/kept';
import { slice } from './spawn/state';
import { surfaceOf, termsBy } from './spawn/terms';

/* The set-ups of the page itself: its demos by every camera, with the terms that the sheet begins with and others of it. */

installSlices({ spawn: slice });

const others: readonly Partial<SpawnState>[] = [
  {},
  { region: 'ring', ring: 12 },
  { padding: 40, paddingUnit: 'pixels' },
  { radius: 3, padding: 0 },
  { sector: { heading: radians(20), half: radians(70) } },
  { discs: [] },
];

it('no spawned point is ever seen: over 1,000,000 in the page’s own set-ups, by the projection itself', () => {
  let [asked, setUps] = [0, 0];
  const count = 40_000;
  const batch = pointBatch(count);
  const look = (project: Project) => {
    const now = taskMoment<SpawnState>('spawn', momentOf(project));
    const surface = surfaceOf(now);
    for (const [i, own] of others.entries()) {
      const terms = termsBy(now.frame, surface, { ...now.slice, ...own });
      if (typeof terms === 'string' || !terms.found) continue;
      const steps = spawnInSteps(terms.found, count, 11 + i, 'direct');
      let step = steps.next();
      while (!step.done) step = steps.next();
      if ('why' in step.value) continue;
      const { pairs } = step.value;
      for (let k = 0; k < count; k++) batch.points.set(surface.at([pairs[2 * k]!, pairs[2 * k + 1]!]), 3 * k);
      batch.project(pointKernel(now.frame));
      const seen = batch.outside.findIndex((bits) => bits === 0);
      expect(seen, `${project.camera.name}, ${JSON.stringify(own)}`).toBe(-1);
      asked += count;
      setUps++;
    }
  };
  for (const project of [saltmarrow(), saltmarrowChart()])
    for (const camera of allCameras(project)) look({ ...project, camera });
  expect(setUps).toBeGreaterThanOrEqual(25);
  expect(asked).toBeGreaterThanOrEqual(1_000_000);
}, 60_000);

it('has terms within bounds where the camera sees to the horizon, and none for a ring', () => {
  const project = saltmarrow();
  if (project.camera.kind !== '3d') throw new Error('the harbour is 3D');
  const { projection } = project.camera;
  const endless = { ...project, camera: { ...project.camera, projection: { ...projection, far: null } } } as Project;
  const now = taskMoment<SpawnState>('spawn', momentOf(endless));
  const by = (own: Partial<SpawnState>) => termsBy(now.frame, surfaceOf(now), { ...now.slice, ...own });
  for (const own of others.filter(({ region }) => region !== 'ring')) {
    const terms = by(own);
    if (typeof terms === 'string') throw new Error(terms);
    // From the middle of this view on, all of the bounds are visible.
    expect(terms.found !== null).toBe(!own.sector);
    expect(terms.middle.every(Number.isFinite)).toBe(true);
  }
  expect(by({ region: 'ring', ring: 12 })).toBe('footprintUnbounded');
});

describe('the state of Spawn', () => {
  const project = saltmarrow();
  const kept = slice.initial(project);
  const sector = { heading: radians(20), half: radians(70) };

  it('of version 1, with the angles of its sector in degrees, is read', () => {
    const older = { ...project, tasks: { spawn: { version: 1, ...kept, sector: { heading: 20, half: 70 } } } };
    expect(sliceOf<SpawnState>('spawn', older as Project)).toEqual({ ...kept, sector });
  });

  it('has fields that name what is wrong, with the limits in the conventions in force', () => {
    const inUnit = (unit: 'degrees' | 'radians', at: FieldPath) => {
      const conventions = { ...project.conventions, angles: { ...project.conventions.angles, unit } };
      const tasks = { spawn: { version: 2, ...kept, sector } };
      return fieldFacts('spawn', spawnState, at, taskMoment('spawn', momentOf({ ...project, conventions, tasks } as Project)))[0]!; // prettier-ignore
    };
    expect(inUnit('degrees', ['padding']).reject(-500)).toBe('Padding is 0 or more.');
    expect(inUnit('degrees', ['ring']).reject(0)).toBe('Ring is above 0.');
    expect(inUnit('degrees', ['count']).reject(1.5)).toBe('How many points is an integer from 0 to 100,000.');
    expect(inUnit('degrees', ['sector', 'half']).reject(181)).toBe('Half of the sector is above 0°, up to 180°.');
    expect(inUnit('radians', ['sector', 'half']).reject(4)).toBe('Half of the sector is above 0 rad, up to 3.14 rad.');
    expect(inUnit('radians', ['sector', 'half'])).toMatchObject({
      unit: 'rad',
      step: 0.09,
      units: { deg: Math.PI / 180 },
    });
    expect(inUnit('degrees', ['sector', 'heading']).value).toBeCloseTo(20, 12);
  });

  it('has no height in 2D', () => {
    const chart = taskMoment('spawn', momentOf(saltmarrowChart()));
    expect(fieldFacts('spawn', spawnState, ['height'], chart)).toEqual([]);
    expect(fieldFacts('spawn', spawnState, ['height'], taskMoment('spawn', momentOf(project)))).toHaveLength(1);
  });
});
