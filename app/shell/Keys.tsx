import { useEffect } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { redo, undo } from '../state/document';
import { tasks } from '../tasks';
import { chooseFile, saveProject, toggleHelp, toggleTheme } from './actions';

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/** The keys that work everywhere. */
export function Keys() {
  const navigate = useNavigate();
  const { search } = useLocation();
  useEffect(() => {
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
      if (typing(event.target)) return;
      if (control && key === 'z') return act(event.shiftKey ? redo : undo);
      if (control && key === 'y') return act(redo);
      if (control || event.altKey) return;
      if (key === '/') return act(() => window.dispatchEvent(new Event('astrolabe:search')));
      if (key === '?') return act(toggleHelp);
      if (key === 't') return act(toggleTheme);
      const task = tasks.find((one) => one.key === key && one.Sheet);
      if (task) act(() => void navigate(`/${task.route}${search}`));
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [navigate, search]);
  return null;
}
