import { beforeEach, describe, expect, it } from 'vitest';
import * as z from 'zod';
import { saltmarrow } from '../../demo/saltmarrow';
import { codecOf } from '../../core/conventions/codec';
import { presets } from '../../core/conventions/conventions';
import { height } from '../../core/quantities/quantity';
import { readProject, writeProject, type Project } from '../../formats/project';
import { currentProject, openProject, undo } from './document';
import { momentOf } from './moment';
import {
  editSlice,
  forgetBodies,
  installSlices,
  rereadSlices,
  sliceOf,
  sliceQueries,
  unreadSlices,
  type Slice,
} from './slices';

interface Ring {
  radius: number;
  /** The height that it is at. */
  level: number;
  about: string | null;
}
const ring: Slice<Ring> = {
  version: 3,
  schema: z.object({ radius: z.number().positive(), level: height().default(0), about: z.string().nullable() }),
  initial: ({ bodies }) => ({ radius: 5, level: 0, about: bodies[0]?.id ?? null }),
  migrate: [
    // 1 had a diameter, 2 a radius and no body.
    (older) => ({ radius: (older as { diameter: number }).diameter / 2 }),
    (older) => ({ ...(older as object), about: null }),
  ],
  forget: (slice, gone) => (slice.about !== null && gone.has(slice.about) ? { ...slice, about: null } : slice),
  queries: ({ radius }) => [{ id: `ring of ${radius}`, op: 'matrices' }],
};
const withTask = (kept: unknown): Project => ({ ...saltmarrow(), tasks: { ring: kept } });

describe('what a task keeps in a project', () => {
  beforeEach(() => {
    installSlices({ ring });
    openProject(saltmarrow());
  });

  it('stands at first as the project says, the same object however often it is asked', () => {
    const project = saltmarrow();
    const first = sliceOf<Ring>('ring', project);
    expect(first).toEqual({ radius: 5, level: 0, about: project.bodies[0]!.id });
    expect(sliceOf('ring', { ...project, name: 'Other' })).toBe(first);
    expect(project.tasks).toEqual({});
  });

  it('is brought from any older version to the present one', () => {
    expect(sliceOf('ring', withTask({ version: 1, diameter: 8 }))).toEqual({ radius: 4, level: 0, about: null });
    expect(sliceOf('ring', withTask({ version: 2, radius: 3 }))).toEqual({ radius: 3, level: 0, about: null });
  });

  it('is changed as a named step of undo, and keeps what the task does not know', () => {
    openProject(withTask({ version: 3, radius: 2, about: null, colour: 'grey' }));
    const before = currentProject();
    editSlice<Ring>('ring', 'widen the ring', (draft) => void (draft.radius = 9));
    expect(currentProject().tasks.ring).toEqual({ version: 3, radius: 9, level: 0, about: null, colour: 'grey' });
    undo();
    expect(currentProject()).toBe(before);
    editSlice<Ring>('ring', 'nothing', () => undefined);
    expect(currentProject()).toBe(before);
  });

  it.each([
    ['of a newer version', { version: 4, radius: 'wide' }],
    ['of a wrong shape', { version: 3, radius: -1, about: null }],
    ['of no version', { radius: 1 }],
    ['that is no object', 'ring'],
    ['whose migration fails', { version: 1 }],
  ])('%s is kept as it was, said, stands as at first, and is moved aside by an edit', (_, kept) => {
    const project = withTask(kept);
    expect(unreadSlices(project).map(({ task }) => task)).toEqual(['ring']);
    expect(sliceOf<Ring>('ring', project).radius).toBe(5);
    const back = readProject(JSON.parse(writeProject(project)));
    expect(back.ok && back.project.tasks.ring).toEqual(kept);
    openProject(project);
    editSlice<Ring>('ring', 'widen the ring', (draft) => void (draft.radius = 6));
    expect(currentProject().tasks['ring, unread']).toEqual(kept);
    expect(sliceOf<Ring>('ring', currentProject()).radius).toBe(6);
  });

  it('forgets deleted bodies, keeps its numbers when the conventions change, and asks its queries where it is used', () => {
    const project = withTask({ version: 3, radius: 2, level: 3, about: 'shed' });
    expect(sliceOf<Ring>('ring', forgetBodies(project, new Set(['shed']))).about).toBeNull();
    expect(forgetBodies(project, new Set(['tern']))).toBe(project);
    const down = { ...presets.WebGPU, world: { right: '+x', up: '-y', forward: '+z' } } as const;
    const again = rereadSlices(project, codecOf(presets.WebGPU), codecOf(down));
    expect(sliceOf<Ring>('ring', again)).toMatchObject({ radius: 2, level: -3 });
    // Nothing changes where nothing is written otherwise.
    expect(rereadSlices(project, codecOf(down), codecOf(down)).tasks).toEqual(project.tasks);
    expect(sliceQueries(momentOf(project)).map(({ id }) => id)).toEqual(['ring of 2']);
    expect(sliceQueries(momentOf(saltmarrow()))).toEqual([]);
  });
});
