import { useEffect, useLayoutEffect } from 'react';
import { useNavigate } from 'react-router';
import { installOpening } from './opening';
import { lookThroughNext, keepSnapshot } from '../edits/cameras';
import { stepFrames, togglePlay } from '../state/clock';
import { moves } from '../state/span';
import { redo, undo, useDocument } from '../state/document';
import { taskNames } from '../tasks/names';
import type { AnyTask } from '../tasks/task';
import { chooseFile, toggleHelp, toggleTheme } from '../edits/actions';
import { saveProject } from '../edits/exporting';

/** Whether an element takes text or a choice from the keyboard: a checkbox takes only Space. */
const takesKeys = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    target.matches('input:not([type=checkbox], [type=button]), textarea, select') ||
    target.closest('[role=listbox], [role=menu], [role=combobox], [role=radiogroup], [role=slider]') !== null);

/** Whether a key press is meant for what has the focus: a button is pressed by Space. */
const pressed = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  target.closest('button, a, input, [role=menuitem], [role=slider], [role=button]') !== null;

/** Takes the first field of the worksheet in focus. */
export function toWorksheet(): void {
  const field = document.querySelector<HTMLElement>('.sheet :is(input, select):not(:disabled)');
  (field ?? document.querySelector<HTMLElement>('.sheet button'))?.focus();
}

/** The keys that work everywhere, and those of the open task. */
export function Keys({ task: open }: { task: AnyTask | null }) {
  const navigate = useNavigate();
  useEffect(() => installOpening((route) => void navigate(`/${route}`)), [navigate]);
  // A layout effect: the keys of a task work as soon as its worksheet is on the screen.
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const control = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      const act = (run: () => void) => {
        event.preventDefault();
        run();
      };
      if (control && key === 's') return act(saveProject);
      if (control && key === 'o') return act(() => chooseFile());
      if (key === 'f1') return act(toggleHelp);
      if (takesKeys(event.target)) return;
      if (control && key === 'z') return act(event.shiftKey ? redo : undo);
      if (control && key === 'y') return act(redo);
      if (control || event.altKey) return;
      const { project } = useDocument.getState();
      if (project && open && moves(project)) {
        if (key === ' ' && !pressed(event.target)) return act(togglePlay);
        const by = { arrowleft: -1, arrowright: 1 }[key];
        if (by !== undefined && event.shiftKey && !(event.target as Element).closest?.('.handle'))
          return act(() => stepFrames(by));
      }
      const own = open?.keys?.find((one) => one.key === key);
      if (own) return act(own.run);
      if (key === 'c' && open) return act(() => lookThroughNext(event.shiftKey ? -1 : 1));
      if (key === 'k' && open) return act(keepSnapshot);
      if (key === 'w' && open) return act(toWorksheet);
      if (key === '/') return act(() => window.dispatchEvent(new Event('astrolabe:search')));
      if (key === '?') return act(toggleHelp);
      if (key === 't') return act(toggleTheme);
      const task = taskNames.find((one) => one.key === key);
      if (task) act(() => void navigate(`/${task.route}`));
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [navigate, open]);
  return null;
}
