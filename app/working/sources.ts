import type { NavigateFunction } from 'react-router';
import { useSettings } from '../state/settings';
import { sourceOf } from './registry';

/** What a link says it leads to. */
export const sourceName = (from: string): string =>
  from.startsWith('line-') ? 'the line that gives it' : (sourceOf(from)?.says ?? from);

/**
 * Goes to where a number is set: opens the task and takes its field in focus, by the field's
 * `data-source`.
 */
export function goToSource(from: string, navigate: NavigateFunction): void {
  const place = sourceOf(from);
  if (place) goToElement(place.task, `[data-source~="${from}"]`, navigate);
}

/**
 * Opens a task (null stays) and takes an element of its worksheet, or of the page, in focus; a
 * section is opened and brought to the top.
 */
export function goToElement(task: string | null, selector: string, navigate: NavigateFunction): void {
  if (task && !window.location.pathname.endsWith(`/${task}`)) void navigate(`/${task}`);
  // The sheet of another task is there a frame later, or two; the field may lie in a section that
  // is folded.
  let tries = 0;
  let opened: readonly string[] = [];
  // Whoever does something else in the meantime is not to be taken away from it.
  const given = new AbortController();
  for (const done of ['keydown', 'pointerdown'])
    window.addEventListener(done, () => given.abort(), { capture: true, signal: given.signal });
  const look = () => {
    if (given.signal.aborted) return;
    const here = task === null || window.location.pathname.endsWith(`/${task}`);
    const found = here ? document.querySelector<HTMLElement>(selector) : null;
    if (found) {
      given.abort();
      // The section that has it stays open, those that were opened to look are folded again.
      const own = found.closest<HTMLElement>('[data-section]')?.dataset.section;
      setFolds(
        opened.filter((id) => id !== own),
        false,
      );
      if (found.dataset.section !== undefined) {
        setFolds([found.dataset.section], true);
        found.scrollIntoView({ block: 'start' });
        found.querySelector<HTMLElement>('h2 button')?.focus({ preventScroll: true });
        return;
      }
      found.scrollIntoView({ block: 'center' });
      // A group is held by the first thing in it.
      const holds = found.matches('input, button, select, textarea, [tabindex]');
      const field = holds ? found : found.querySelector<HTMLElement>('input, textarea, select, button');
      field?.focus();
      if (field instanceof HTMLInputElement && field.type !== 'checkbox') field.select();
      if (found instanceof HTMLButtonElement) found.click();
    } else if (tries++ < 60) {
      if (tries % 20 === 6) {
        const folded = foldedSections();
        opened = [...opened, ...folded];
        setFolds(folded, true);
      }
      requestAnimationFrame(look);
    } else given.abort();
  };
  requestAnimationFrame(look);
}

const foldedSections = (): string[] =>
  [...document.querySelectorAll<HTMLElement>('.sheet [data-section]')]
    .filter((section) => section.querySelector('h2 button[aria-expanded=false]'))
    .map((section) => section.dataset.section!);

function setFolds(ids: readonly string[], open: boolean): void {
  useSettings.setState(({ folds }) => ({ folds: { ...folds, ...Object.fromEntries(ids.map((id) => [id, open])) } }));
}
