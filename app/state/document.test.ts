import { cameraInSpace } from '../../formats/camera';
import fc from 'fast-check';
import { useClock } from './clock';
import { beforeEach, describe, expect, it } from 'vitest';
import { saltmarrow } from '../../demo/saltmarrow';
import {
  cancelGesture,
  currentProject,
  edit,
  editCamera,
  endGesture,
  openProject,
  redo,
  replaceProject,
  restoreSteps,
  undo,
  useDocument,
} from './document';

const first = saltmarrow();
const state = () => useDocument.getState();
const moveEye = (x: number, gesture: string | null = null) =>
  editCamera('move the camera', (camera) => void (camera.position[0] = x), gesture);

beforeEach(() => openProject(first));

it('opens a project at time 0, whatever the time of the one before', () => {
  useClock.setState({ time: 7, playing: true });
  openProject(first);
  expect(useClock.getState()).toMatchObject({ time: 0, playing: false });
});

describe('the document', () => {
  it('takes each edit back by its name and does it again, to the same object', () => {
    moveEye(1);
    edit('rename', (draft) => void (draft.name = 'Other'));
    const last = currentProject();
    expect(state().past.map(({ name }) => name)).toEqual(['move the camera', 'rename']);
    undo();
    undo();
    expect(currentProject()).toBe(first);
    undo();
    expect(currentProject()).toBe(first);
    redo();
    redo();
    redo();
    expect(currentProject()).toBe(last);
  });

  it('makes one step of a gesture, and another of the next', () => {
    for (const x of [1, 2, 3]) moveEye(x, 'drag');
    expect(state().past).toHaveLength(1);
    endGesture();
    moveEye(4, 'drag');
    expect(state().past).toHaveLength(2);
    undo();
    expect(cameraInSpace(currentProject()).position[0]).toBe(3);
    undo();
    expect(currentProject()).toBe(first);
  });

  it('forgets a gesture that is cancelled, and only that one', () => {
    moveEye(1);
    const before = currentProject();
    moveEye(2, 'typing');
    moveEye(3, 'typing');
    cancelGesture('another');
    expect(cameraInSpace(currentProject()).position[0]).toBe(3);
    cancelGesture('typing');
    expect(currentProject()).toBe(before);
    expect(state().past).toHaveLength(1);
  });

  it('counts an edit that changes nothing as none, and shares what an edit leaves alone', () => {
    moveEye(cameraInSpace(first).position[0]);
    expect(state().past).toHaveLength(0);
    moveEye(9);
    expect(currentProject().bodies).toBe(first.bodies);
    expect(cameraInSpace(first).position[0]).toBe(-6);
  });

  it('brings back the project that another took the place of', () => {
    replaceProject('open a file', { ...first, name: 'Second' });
    expect(currentProject().name).toBe('Second');
    undo();
    expect(currentProject()).toBe(first);
  });

  it('comes back byte for byte through any steps there and back', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.double({ min: -9, max: 9, noNaN: true }), fc.option(fc.constantFrom('a', 'b'), { nil: null })),
          { maxLength: 40 },
        ),
        (edits) => {
          openProject(first);
          for (const [x, gesture] of edits) moveEye(x, gesture);
          const end = JSON.stringify(currentProject());
          const steps = state().past.length;
          for (let i = 0; i < steps; i++) undo();
          expect(JSON.stringify(currentProject())).toBe(JSON.stringify(first));
          for (let i = 0; i < steps; i++) redo();
          expect(JSON.stringify(currentProject())).toBe(end);
        },
      ),
    );
  });
});

describe('steps of an earlier visit', () => {
  const kept = (name: string) => structuredClone({ ...first, name });

  it('come before those of this one, and are read when they are come to', () => {
    restoreSteps([{ name: 'first', before: kept('One') }], [{ name: 'ahead', after: kept('Three') }]);
    expect(state().future).toHaveLength(1);
    redo();
    expect(currentProject().name).toBe('Three');
    undo();
    moveEye(7);
    restoreSteps([{ name: 'before', before: kept('Zero') }], [{ name: 'late', after: kept('Late') }]);
    expect(state().past.map(({ name }) => name)).toEqual(['before', 'first', 'move the camera']);
    undo();
    undo();
    undo();
    expect(currentProject().name).toBe('Zero');
  });

  it('that cannot be read are let go, and nothing changes', () => {
    restoreSteps([{ name: 'broken', before: { ...kept('Broken'), bodies: 'none' } as never }], []);
    undo();
    expect(currentProject()).toBe(first);
    expect(state().past).toHaveLength(0);
  });
});
