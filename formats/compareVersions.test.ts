import { expect, it } from 'vitest';
import { saltmarrow } from '../demo/saltmarrow';
import { differences, versionDifferences } from './compare';
import { parseProject, writeProject } from './project';

it('a version of an older page that lacks what is a default now differs in nothing', () => {
  // As it comes back from a file: JSON knows no −0.
  const read = parseProject(writeProject(saltmarrow()));
  if (!read.ok) throw new Error();
  const now = read.project;
  const older = JSON.parse(writeProject(now)) as Record<string, unknown>;
  for (const key of ['snapshots', 'tasks', 'tiles', 'pointer']) delete older[key];
  for (const body of older.bodies as Record<string, unknown>[]) if (body.motion === null) delete body.motion;
  const same = {
    ...now,
    pointer: {
      canvas: [0, 0] as [number, number],
      cssScale: 1,
      framebufferScale: 1,
      bars: now.pointer.bars,
      leftOut: [],
    },
  };
  expect(versionDifferences(older, same).map(({ path }) => path)).toEqual([]);
  expect(differences(older, same).length).toBeGreaterThan(0);
  expect(versionDifferences(older, { ...same, name: 'Other' }).map(({ path }) => path)).toEqual(['name']);
});

it('a version that cannot be read is compared as it lies', () => {
  expect(versionDifferences({ id: 3 }, saltmarrow(), 2)).toHaveLength(2);
});
