import { readCamera } from '../../../core/request/readCamera';
import type { RequestCamera, RequestCamera2d } from '../../../core/request/cameraSchema';
import { reexpressCamera2d } from '../../../core/request/write';
import type { Draft } from 'immer';
import { codecOf } from '../../../core/conventions/codec';
import { defaultConventions, type Conventions } from '../../../core/conventions/conventions';
import { frameOf } from '../../../core/camera/frame';
import { coreViewport } from '../../../formats/camera';
import { addReadCamera, addReadCamera2d } from '../../edits/addedCameras';
import { setConventions } from '../../edits/actions';
import { currentProject } from '../../state/document';
import { editSlice } from '../../state/slices';
import { complain, say } from '../../ui/notices';
import { carried } from './carried';
import { mostText, type Correction, type DiagnoseState } from './kept';

export const change = (name: string, recipe: (draft: Draft<DiagnoseState>) => void, gesture?: string): void =>
  editSlice<DiagnoseState>('diagnose', name, recipe, gesture ?? null);

/** Another text, typed or pasted. */
export function setText(text: string, gesture?: string): void {
  const kept = text.slice(0, mostText);
  if (kept.length < text.length) say(`Only the first ${mostText.toLocaleString('en')} characters are kept.`);
  change(
    'change the pasted text',
    (draft) => {
      draft.corrections = carried(draft.corrections, draft.text, kept);
      draft.text = kept;
      draft.chosen = 0;
      draft.candidate = 0;
    },
    gesture,
  );
}

/** Says of something that was read what it is, or how it was printed. */
export const correct = (from: number, said: Partial<Omit<Correction, 'from'>>): void =>
  change('correct the reading', (draft) => {
    const one = draft.corrections.find((own) => own.from === from);
    if (one) Object.assign(one, said);
    else draft.corrections.push({ from, role: null, turned: null, ...said });
  });

/** Takes a camera that was read off the numbers into the project, as one more. */
export function takeCamera(camera: RequestCamera, conventions: Conventions, name: string): void {
  const e = codecOf(conventions);
  const read = readCamera(camera, e);
  const made = read.ok ? frameOf(read.value, coreViewport(currentProject())) : read;
  if (!made.ok) return complain('The camera could not be taken, and nothing has changed.', made.problems);
  addReadCamera(made.value, name);
}

/** Adds a 2D camera of some conventions to the project. */
export function takeCamera2d(camera: RequestCamera2d, conventions: Conventions, name: string): void {
  const viewport = coreViewport(currentProject());
  addReadCamera2d(reexpressCamera2d(camera, viewport, codecOf(conventions), codecOf(defaultConventions)), name);
}

/** Takes conventions into the project: the camera stays where it is, and its numbers change. */
export function takeConventions(conventions: Conventions): void {
  setConventions(() => structuredClone(conventions));
  say('The conventions were taken. Undo brings the former back.');
}
