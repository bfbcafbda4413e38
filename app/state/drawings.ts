import { create } from 'zustand';
import type { Project } from '../../formats/project';
import type { DrawingView } from '../pictures/drawings';

interface OwnView extends DrawingView {
  readonly of: string;
}

/** What a drawing is of: the user's view of one project says nothing of another. */
export const drawnWorld = ({ id, camera }: Project): string => `${id} ${camera.kind}`;

interface Drawings {
  /** The user's own views, and of which project and kind of world each is; null stands for one that fits. */
  readonly plan: OwnView | null;
  readonly section: OwnView | null;
  /** How often a fit was asked for. */
  readonly fits: number;
}
export const useDrawings = create<Drawings>(() => ({ plan: null, section: null, fits: 0 }));
