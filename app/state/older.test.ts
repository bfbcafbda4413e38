import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { momentOf } from './moment';
import { allCameras, parseProject, writeProject } from '../../formats/project';

/* Projects as the version before tasks had slices wrote them. */

const files = ['before-tasks', 'before-tasks-flat'] as const;
const textOf = (name: string) =>
  readFileSync(new URL(`../../formats/fixtures/${name}.astrolabe.json`, import.meta.url), 'utf8');

describe.each(files)('the older project %s', (name) => {
  const text = textOf(name);
  const before = JSON.parse(text) as Record<string, unknown>;

  it('opens with everything it had', () => {
    const read = parseProject(text);
    if (!read.ok) throw new Error(read.problems[0]!.message);
    expect(read.project).toMatchObject(before);
    expect(allCameras(read.project)).toHaveLength(1);
    expect(read.project).toMatchObject({ snapshots: [], tasks: {}, cameras: [], cameraPlace: 0 });
    expect(momentOf(read.project).seen.problems).toEqual([]);
  });

  it('loses nothing by being saved', () => {
    const read = parseProject(text);
    if (!read.ok) throw new Error();
    expect(JSON.parse(writeProject(read.project))).toMatchObject(before);
  });
});
