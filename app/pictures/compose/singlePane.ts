import type { Project } from '../../../formats/project';
import { momentOf } from '../../state/moment';
import type { Theme } from '../../ui/themes';
import { composePane, type SavedPane } from './compose';
import type { Size } from './contract';
import { fitted, fittedOutside } from './drawings';
import type { PicturesInput } from './picturesInput';
import type { SinglePicture } from './singleNames';
import { caption, rulerX, rulerY, type Slot } from './slots';

/**
 * Returns the size of a picture with its frame, in pixels of the page.
 *
 * @param width - at least 160
 */
export function singlePaneSize({ viewport }: Pick<Project, 'viewport'>, name: SinglePicture, width: number): Size {
  if (name !== 'camera') return { width, height: Math.round((width * 3) / 4) };
  return { width, height: ((width - 2 * rulerX) * viewport.height) / viewport.width + 2 * rulerY };
}

/**
 * Composes one picture of a project by itself, as the page shows it with nothing selected.
 *
 * @param size - the picture with its frame and rulers, in pixels of the page
 * @param time - seconds by the project's clock
 * @returns null for a section of a 2D world, which has none
 */
export function composeSingle(
  project: Project,
  name: SinglePicture,
  size: Size,
  theme: Theme,
  time = 0,
): SavedPane | null {
  const now = momentOf(project, time);
  if (now.flat && (name === 'section' || name === 'outside')) return null;
  const slot: Slot = { x: 0, y: -caption, ...size };
  const input: PicturesInput = {
    ...{ seen: null, time, size, pixel: 1, theme, route: '', rested: now.frame, table: null, answers: {} },
    slots: { main: name === 'camera' ? slot : null, beside: null, panes: name === 'camera' ? [] : [{ name, slot }], strip: null }, // prettier-ignore
    plan: fitted('plan', size, now),
    section: now.flat ? { middle: [0, 0], unitsPerPixel: 1 } : fitted('section', size, now),
    outside: fittedOutside(now),
    ...{ shown: { snapshot: null, how: 'beside' }, selected: [], folds: {}, css: [0, 0] },
    ...{ isPainting: false, isSending: false },
  };
  return composePane(project, input, name === 'camera' ? 'main' : name);
}
