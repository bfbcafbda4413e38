import { create } from 'zustand';
import type { Project } from '../../formats/project';
import { heldPicture } from '../ui/hand';
import { useDocument } from './document';

/** How often what is read follows while something moves: about as often as a number can be read. */
const pace = 200;

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

/** The picture in which the hand is moving something: from the first change it makes until it lets go. */
export const useMoving = create<{ readonly where: string | null }>(() => ({ where: null }));

useDocument.subscribe(() => {
  const where = heldPicture();
  if (useMoving.getState().where !== where) useMoving.setState({ where });
  if (where !== null) timer ??= setTimeout(follow, pace);
  else follow();
});
if (typeof document !== 'undefined')
  document.addEventListener('lostpointercapture', () => {
    useMoving.setState({ where: null });
    follow();
  });
