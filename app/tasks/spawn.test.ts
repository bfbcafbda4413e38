import { expect, it } from 'vitest';
import { pointBatch } from '../../core/kernels/batch';
import { pointKernel } from '../../core/kernels/points';
import { spawnInSteps } from '../../core/spawn/spawn';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { allCameras, type Project } from '../../formats/project';
import { momentOf } from '../state/moment';
import { installSlices, taskMoment } from '../state/slices';
import { slice, type SpawnState } from './spawn/state';
import { surfaceOf, termsBy } from './spawn/terms';

/* The set-ups of the page itself: its demos by every camera, with the terms that the sheet begins with and others of it. */

installSlices({ spawn: slice });

const others: readonly Partial<SpawnState>[] = [
  {},
  { region: 'ring', ring: 12 },
  { padding: 40, paddingUnit: 'pixels' },
  { radius: 3, padding: 0 },
  { sector: { heading: 20, half: 70 } },
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
