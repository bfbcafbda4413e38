import { createContext, useContext } from 'react';
import { useShallow } from 'zustand/react/shallow';
import type { Project } from '../../formats/project';
import { useAnswers } from './answers';
import { useClock } from './clock';
import { useDocument } from './document';
import { momentOf, type Moment } from './moment';
import { reading, useNow, useStill } from './pace';
import { taskMoment } from './slices';

/**
 * How what is inside follows the document and the clock while something moves: `now`, what goes
 * with the hand; `chain`, `sheet` and `strip`, what is read, at reading pace; `still`, what is set
 * in the pictures, when the hand lets go.
 */
export type TempoName = 'now' | keyof typeof reading | 'still';
export const Tempo = createContext<TempoName>('now');

const stores = { now: useNow, ...reading, still: useStill } as const;

interface At {
  readonly project: Project | null;
  readonly time: number;
}
function opened({ project, time }: At): Moment {
  if (!project) throw new Error('no project is open');
  return momentOf(project, time);
}

/** The moment of the open project, for components below a page that has one. */
export function useMoment(): Moment {
  const useStore = stores[useContext(Tempo)];
  return useStore(opened);
}

export const currentMoment = (): Moment =>
  opened({ project: useDocument.getState().project, time: useClock.getState().time });

/**
 * A few values of the moment, flat in one object: the component is rendered anew only when one of
 * them is another. For what does not change while the camera is moved.
 */
export function usePart<Part extends object>(select: (now: Moment) => Part): Part {
  const useStore = stores[useContext(Tempo)];
  return useStore(useShallow((state) => select(opened(state))));
}

/**
 * The moment as a task sees it: with what it keeps in the project, and what its jobs have found.
 */
export function useTaskMoment<S>(task: string): Moment<S> {
  const now = useMoment();
  const useStore = stores[useContext(Tempo)];
  const answers = useStore((state) => state.answers);
  return taskMoment(task, now, answers);
}

export const currentTaskMoment = <S>(task: string): Moment<S> =>
  taskMoment(task, currentMoment(), useAnswers.getState().answers);
