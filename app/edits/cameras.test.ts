import { beforeEach, describe, expect, it, vi } from 'vitest';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { allCameras, parseProject, readProject, writeProject, type Project } from '../../formats/project';
import { currentProject, openProject, undo, useDocument } from '../state/document';
import { useDrawings } from '../state/drawings';
import { momentOf } from '../state/moment';
import {
  deleteCamera,
  deleteSnapshot,
  duplicateCamera,
  keepSnapshot,
  lookThrough,
  lookThroughNext,
  moveOtherCamera,
  renameCamera,
  returnToSnapshot,
  showSnapshot,
} from './cameras';
import { addStartingCamera, addStartingCamera2d, startingCameras, startingCameras2d } from './addedCameras';

vi.stubGlobal('requestAnimationFrame', () => 0);
vi.stubGlobal('cancelAnimationFrame', () => undefined);

const names = (project: Project = currentProject()) => allCameras(project).map(({ name }) => name);
const steps = () => useDocument.getState().past.length;
beforeEach(() => openProject(saltmarrow()));

describe('the cameras of a project', () => {
  it('are looked through in turn, each keeping its place, and one step of undo leads back', () => {
    const order = ['Lamp room', 'Bridge wing', 'Breakwater', 'Quay', 'Round the light'];
    expect(names()).toEqual(order);
    const seen: string[] = [];
    for (let i = 0; i < 5; i++) {
      lookThroughNext(1);
      seen.push(currentProject().camera.name);
      expect(names()).toEqual(order);
    }
    expect(seen).toEqual(['Breakwater', 'Quay', 'Round the light', 'Lamp room', 'Bridge wing']);
    lookThroughNext(-1);
    expect(currentProject().camera.name).toBe('Lamp room');
    undo();
    expect(currentProject().camera.name).toBe('Bridge wing');
    lookThrough('nobody');
    expect(steps()).toBe(5);
  });

  it('are added, renamed and deleted, and a file has them all again', () => {
    duplicateCamera();
    renameCamera('Crow’s nest');
    expect(names()).toEqual(['Lamp room', 'Bridge wing', 'Crow’s nest', 'Breakwater', 'Quay', 'Round the light']);
    duplicateCamera();
    duplicateCamera();
    expect(new Set(allCameras(currentProject()).map(({ id }) => id)).size).toBe(8);
    const back = parseProject(writeProject(currentProject()));
    expect(back.ok && names(back.project)).toEqual(names());
    for (let i = 0; i < 9; i++) deleteCamera();
    expect(names()).toHaveLength(1);
    for (let i = 0; i < 7; i++) undo();
    expect(names()).toHaveLength(8);
  });

  it('of which one that is not looked through is moved alone', () => {
    const before = currentProject().camera;
    moveOtherCamera('quay', [1, 2, 3], 'drag');
    moveOtherCamera('quay', [2, 2, 3], 'drag');
    expect(currentProject().cameras.find(({ id }) => id === 'quay')).toMatchObject({ position: [2, 2, 3] });
    expect(currentProject().camera).toBe(before);
    expect(steps()).toBe(1);
  });

  it.each(Object.keys(startingCameras) as (keyof typeof startingCameras)[])(
    'start from %s: one that can be, and sees the probed body',
    (kind) => {
      addStartingCamera(kind);
      const project = currentProject();
      expect(project.camera.name).toBe(startingCameras[kind]);
      expect(readProject(JSON.parse(writeProject(project))).ok).toBe(true);
      const now = momentOf(project);
      expect(now.seen.problems).toEqual([]);
      if (kind !== 'firstPerson') expect(now.chain.ok && now.chain.value.outside).toEqual([]);
      undo();
      expect(currentProject().camera.name).toBe('Bridge wing');
    },
  );

  it.each(Object.keys(startingCameras2d) as (keyof typeof startingCameras2d)[])(
    'start from %s on a flat world',
    (kind) => {
      openProject(saltmarrowChart());
      addStartingCamera2d(kind);
      const now = momentOf(currentProject());
      expect(now.seen.problems).toEqual([]);
      expect(now.chain.ok && now.chain.value.outside).toEqual([]);
      expect(currentProject().camera).toMatchObject({ kind: '2d', snap: kind === 'pixelPerfect' ? 'floor' : 'round' });
    },
  );
});

describe('snapshots', () => {
  it('are set aside, come back with their camera, and are deleted', () => {
    keepSnapshot();
    const [snapshot] = currentProject().snapshots;
    expect(snapshot).toMatchObject({ name: 'Bridge wing 1', camera: currentProject().camera, time: 0 });
    lookThrough('quay');
    showSnapshot(snapshot!.id, 'beside');
    returnToSnapshot(snapshot!.id);
    expect(currentProject().camera.name).toBe('Bridge wing');
    expect(names()).toHaveLength(5);
    deleteSnapshot(snapshot!.id);
    expect(currentProject().snapshots).toEqual([]);
    expect(useDrawings.getState().snapshot).toBeNull();
    undo();
    expect(currentProject().snapshots).toHaveLength(1);
  });
});
