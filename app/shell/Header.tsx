import './Header.css';
import { redo, undo, useDocument } from '../state/document';
import { themeInForce, useSettings } from '../state/settings';
import { deferred } from '../ui/deferred';
import { Caret, Find, Mark, Moon, Question, Redo, Sun, Undo } from '../ui/icons';
import { toggleHelp, toggleTheme } from '../edits/actions';
import { ConventionsChip } from './conventions/ConventionsChip';

export const Brand = () => (
  <div className="brand">
    <Mark size={30} />
    <span className="brand-name">Astrolabe</span>
  </div>
);

export function Header() {
  const undone = useDocument(({ past }) => past.at(-1)?.name);
  const redone = useDocument(({ future }) => future.at(-1)?.name);
  const theme = themeInForce(useSettings((state) => state.theme));
  return (
    <header className="header">
      <Brand />
      <ProjectMenu />
      <span className="flex-1" />
      <ConventionsChip />
      <span className="flex-1" />
      <ViewportChip />
      <span className="flex">
        <button
          className="tool"
          onClick={undo}
          disabled={undone === undefined}
          aria-label="Undo"
          title={undone === undefined ? 'Nothing to undo' : `Undo: ${undone}`}
        >
          <Undo />
        </button>
        <button
          className="tool"
          onClick={redo}
          disabled={redone === undefined}
          aria-label="Redo"
          title={redone === undefined ? 'Nothing to redo' : `Redo: ${redone}`}
        >
          <Redo />
        </button>
      </span>
      <CommandSearch openOn="astrolabe:search" />
      <span className="flex">
        <button
          className="tool"
          onClick={toggleTheme}
          aria-label={theme === 'night' ? 'Paper theme' : 'Night theme'}
          title={theme === 'night' ? 'Paper (T)' : 'Night (T)'}
        >
          {theme === 'night' ? <Sun /> : <Moon />}
        </button>
        <Help />
      </span>
    </header>
  );
}

const ProjectMenu = deferred(
  'menu',
  () => import('./ProjectMenu'),
  () => {
    const name = useDocument((state) => state.project!.name);
    return {
      className: 'project-button',
      children: (
        <>
          {name} <Caret />
        </>
      ),
    };
  },
);

const ViewportChip = deferred(
  'dialog',
  () => import('./ViewportForm'),
  () => {
    const { width, height, devicePixelRatio } = useDocument((state) => state.project!.viewport);
    return {
      className: 'chip mono',
      'data-source': 'viewport',
      title: 'Viewport in CSS pixels, and device pixel ratio',
      children: (
        <>
          {width} × {height} <em>@{devicePixelRatio}×</em> <Caret />
        </>
      ),
    };
  },
);

const CommandSearch = deferred(
  'dialog',
  () => import('./Commands'),
  () => ({
    className: 'find',
    'aria-label': 'Search commands',
    children: (
      <>
        <Find />
        <span>Search</span>
        <kbd>/</kbd>
      </>
    ),
  }),
);

function Help() {
  const open = useSettings((state) => state.help);
  return (
    <button className="tool" aria-label="Help" aria-pressed={open} title="Help and keys (?)" onClick={toggleHelp}>
      <Question />
    </button>
  );
}
