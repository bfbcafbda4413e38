import { produce, type Draft } from 'immer';
import { create } from 'zustand';
import { readProject, type Project, type ProjectCamera2d, type ProjectCamera3d } from '../../formats/project';
import { say } from '../ui/notices';
import { resetClock } from './clock';

export interface Step {
  /** What was done, as a menu says it: “Undo turn the camera”. */
  readonly name: string;
  readonly before: Project;
}

export interface StepAhead {
  readonly name: string;
  readonly after: Project;
}

interface DocumentState {
  readonly project: Project | null;
  readonly past: readonly Step[];
  readonly future: readonly StepAhead[];
  /**
   * The gesture that the last step belongs to: further edits of it widen that step instead of
   * adding one.
   */
  readonly gesture: string | null;
}

/** The one document. Only the functions below change it. */
export const useDocument = create<DocumentState>(() => ({ project: null, past: [], future: [], gesture: null }));

/** The open project; a programmer's error before one is open. */
export function currentProject(): Project {
  const { project } = useDocument.getState();
  if (!project) throw new Error('no project is open');
  return project;
}

/**
 * The project that a gesture goes on from: what is worked out from it does not pile up while the
 * gesture lasts.
 */
export function projectBefore(gesture: string | null): Project {
  const { past, gesture: running } = useDocument.getState();
  return (gesture !== null && gesture === running && past.at(-1)?.before) || currentProject();
}

/** Opens a project: without history, at time 0. */
export function openProject(project: Project): void {
  resetClock();
  useDocument.setState({ project, past: [], future: [], gesture: null });
}

/** Puts another project in the open one's place as one step that can be undone. */
export const replaceProject = (name: string, project: Project): void => apply(name, null, () => project);

/**
 * Changes the document by a recipe on a draft. Edits that name the same gesture (a drag, a number
 * being typed) are one step of undo.
 */
export const edit = (name: string, recipe: (draft: Draft<Project>) => void, gesture: string | null = null): void =>
  apply(name, gesture, (project) => produce(project, recipe));

/** Changes the camera of a project in space; a flat one has none to change. */
export const editCamera = (
  name: string,
  recipe: (camera: Draft<ProjectCamera3d>) => void,
  gesture: string | null = null,
): void =>
  edit(
    name,
    ({ camera }) => {
      if (camera.kind === '3d') recipe(camera);
    },
    gesture,
  );

/** Changes the camera of a flat project; one in space has none to change. */
export const editCamera2d = (
  name: string,
  recipe: (camera: Draft<ProjectCamera2d>) => void,
  gesture: string | null = null,
): void =>
  edit(
    name,
    ({ camera }) => {
      if (camera.kind === '2d') recipe(camera);
    },
    gesture,
  );

function apply(name: string, gesture: string | null, change: (project: Project) => Project): void {
  useDocument.setState((state) => {
    if (!state.project) return state;
    const project = change(state.project);
    if (project === state.project) return state;
    const goesOn = gesture !== null && gesture === state.gesture;
    return {
      project,
      past: goesOn ? state.past : [...state.past, { name, before: state.project }],
      future: [],
      gesture,
    };
  });
}

/** Ends a gesture: the next edit is a step of its own. */
export const endGesture = (): void => useDocument.setState({ gesture: null });

/** Takes back everything the running gesture did, as if it had not begun. */
export function cancelGesture(gesture: string): void {
  useDocument.setState((state) => {
    const last = state.past.at(-1);
    if (state.gesture !== gesture || !last) return state;
    return { project: last.before, past: state.past.slice(0, -1), gesture: null };
  });
}

/** States of an earlier visit, perhaps of an earlier page: read like a file when they are come to. */
const unproven = new WeakSet<Project>();

/**
 * Puts the steps of an earlier visit before those of this one; those that had been taken back come
 * too while nothing has been done since.
 */
export function restoreSteps(past: readonly Step[], future: readonly StepAhead[]): void {
  for (const { before } of past) unproven.add(before);
  for (const { after } of future) unproven.add(after);
  useDocument.setState((state) => ({
    past: [...past, ...state.past],
    future: state.past.length || state.future.length ? state.future : future,
  }));
}

/** A state to go to; null, and said, where this page cannot read it. */
function stateToGoTo(project: Project): Project | null {
  if (!unproven.has(project)) return project;
  const read = readProject(project);
  if (read.ok) return read.project;
  say('The steps of the earlier visit were kept by another version of this page, and cannot be gone through here.');
  return null;
}

export function undo(): void {
  useDocument.setState((state) => {
    const last = state.past.at(-1);
    if (!last || !state.project) return state;
    const project = stateToGoTo(last.before);
    if (!project) return { past: [] };
    return {
      project,
      past: state.past.slice(0, -1),
      future: [...state.future, { name: last.name, after: state.project }],
      gesture: null,
    };
  });
}

export function redo(): void {
  useDocument.setState((state) => {
    const next = state.future.at(-1);
    if (!next || !state.project) return state;
    const project = stateToGoTo(next.after);
    if (!project) return { future: [] };
    return {
      project,
      past: [...state.past, { name: next.name, before: state.project }],
      future: state.future.slice(0, -1),
      gesture: null,
    };
  });
}
