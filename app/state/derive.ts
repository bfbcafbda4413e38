import { createContext, useContext } from 'react';
import { useShallow } from 'zustand/react/shallow';
import type { Project } from '../../formats/project';
import { useDocument } from './document';
import { reading, useStill } from './pace';
import { situationOf, type Situation } from './situation';

/**
 * How what is inside follows the document while the hand moves something: `now`, what goes with the hand; `chain`, `sheet` and `strip`, what is read, at reading pace; `still`,
 * what is set in the pictures, when the hand lets go.
 */
export type TempoName = 'now' | keyof typeof reading | 'still';
export const Tempo = createContext<TempoName>('now');

type Following = <Part>(select: (state: { readonly project: Project | null }) => Part) => Part;
const stores: Readonly<Record<TempoName, Following>> = { now: useDocument, ...reading, still: useStill };

/** The situation of the open project, for components below a page that has one. */
export function useSituation(): Situation {
  const useStore = stores[useContext(Tempo)];
  const project = useStore((state) => state.project);
  if (!project) throw new Error('no project is open');
  return situationOf(project);
}

export function currentSituation(): Situation {
  const { project } = useDocument.getState();
  if (!project) throw new Error('no project is open');
  return situationOf(project);
}

/**
 * A few values of the situation, flat in one object: the component is rendered anew only when one of them is another. For what does not change
 * while the camera is moved.
 */
export function usePart<Part extends object>(select: (situation: Situation) => Part): Part {
  const useStore = stores[useContext(Tempo)];
  return useStore(
    useShallow(({ project }) => {
      if (!project) throw new Error('no project is open');
      return select(situationOf(project));
    }),
  );
}
