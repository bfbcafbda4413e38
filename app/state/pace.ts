import { create } from 'zustand';
import type { Project } from '../../formats/project';
import { handHoldsPicture } from '../ui/hand';
import { useDocument } from './document';

/** How often what is read follows while something moves: more often than a number can be read. */
const pace = 100;

/**
 * The document for what is read rather than looked at. While the hand moves something in a picture the pictures have every frame to themselves and figures follow at
 * reading pace; otherwise, and as soon as the hand lets go, they are in step.
 */
export const usePaced = create<{ readonly project: Project | null }>(() => ({ project: null }));

let timer: ReturnType<typeof setTimeout> | undefined;
function follow(): void {
  clearTimeout(timer);
  timer = undefined;
  const { project } = useDocument.getState();
  if (usePaced.getState().project !== project) usePaced.setState({ project });
}
useDocument.subscribe(() => {
  if (handHoldsPicture()) timer ??= setTimeout(follow, pace);
  else follow();
});
if (typeof document !== 'undefined') document.addEventListener('lostpointercapture', follow);
