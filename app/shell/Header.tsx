import './Header.css';
import { Command } from 'cmdk';
import { DropdownMenu, Popover } from 'radix-ui';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { redo, undo, useDocument } from '../state/document';
import { useNewer } from '../state/offline';
import { useKeeping } from '../state/autosave';
import { themeInForce, useSettings } from '../state/settings';
import { tasks } from '../tasks/page';
import { Caret, Find, Mark, Moon, Question, Redo, Sun, Undo } from '../ui/icons';
import { NumberField } from '../sheet/NumberField';
import { setViewport } from '../edits/viewport';
import { chooseFile, copyRequest, openDemo, saveProject, saveRequest, toggleHelp, toggleTheme } from '../edits/actions';
import { goToElement } from '../working/sources';
import { commandsFor } from './commands';
import { found } from './search';
import { ConventionsChip } from './conventions/ConventionsChip';
import { PopOver, leaveFocus } from '../ui/PopOver';

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
      <CommandSearch />
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

function ProjectMenu() {
  const name = useDocument((state) => state.project!.name);
  const keeping = useKeeping((state) => state.state);
  const changeOver = useNewer((state) => state.changeOver);
  const navigate = useNavigate();
  const item = (label: string, run: () => void, right?: string) => (
    <DropdownMenu.Item className="menu-item" onSelect={run}>
      {label}
      {right && <span className="right">{right}</span>}
    </DropdownMenu.Item>
  );
  return (
    // Modal it would write styles into the page to hold it still, which the policy lets nobody do;
    // and there is nothing to hold.
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="project-button">
        {name} <Caret />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" align="start" sideOffset={6} onCloseAutoFocus={leaveFocus}>
          <div className="px-3 pb-1 text-small text-ink2">
            {keeping === 'kept'
              ? 'Kept in this browser'
              : keeping === 'unsaved'
                ? 'Being kept…'
                : 'Not kept by this browser'}
          </div>
          <div className="menu-line" />
          {item('All projects and versions…', () => void navigate('/projects'))}
          {item('Save as a file', saveProject, 'Ctrl S')}
          {item('Open a file…', () => chooseFile(), 'Ctrl O')}
          <div className="menu-line" />
          {item('Save as a compute request', saveRequest)}
          {item('Copy as a compute request', () => void copyRequest())}
          <div className="menu-line" />
          {item('Open the demo, Saltmarrow harbour', () => openDemo('harbour'))}
          {item('Open the demo, Saltmarrow chart', () => openDemo('chart'), '2D')}
          {changeOver && (
            <>
              <div className="menu-line" />
              {item('Change over to the newer Astrolabe', changeOver)}
            </>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

const sizes = [
  [1280, 720],
  [1920, 1080],
  [2560, 1080],
  [1024, 768],
  [844, 390],
  [390, 844],
] as const;

function ViewportChip() {
  const viewport = useDocument((state) => state.project!.viewport);
  const whole = (v: number) =>
    v >= 1 && v <= 16384 && Number.isInteger(v) ? null : 'A viewport’s side is a whole number from 1 to 16384.';
  return (
    <Popover.Root>
      <Popover.Trigger
        className="chip mono"
        data-source="viewport"
        title="Viewport in CSS pixels, and device pixel ratio"
      >
        {viewport.width} × {viewport.height} <em>@{viewport.devicePixelRatio}×</em> <Caret />
      </Popover.Trigger>
      <PopOver style={{ width: 250 }} aria-label="Viewport">
        <h3>Viewport</h3>
        <div className="grid-form mt-1">
          <span>Width</span>
          <NumberField
            name="Viewport width"
            value={viewport.width}
            unit="css px"
            width={120}
            refuse={whole}
            onChange={(width, g) => setViewport({ width }, g)}
          />
          <span>Height</span>
          <NumberField
            name="Viewport height"
            value={viewport.height}
            unit="css px"
            width={120}
            refuse={whole}
            onChange={(height, g) => setViewport({ height }, g)}
          />
          <span>Device pixels</span>
          <NumberField
            name="Device pixel ratio"
            value={viewport.devicePixelRatio}
            unit="per css px"
            step={0.25}
            width={120}
            refuse={(v) => (v >= 0.25 && v <= 8 ? null : 'A device pixel ratio lies between 0.25 and 8.')}
            onChange={(devicePixelRatio, g) => setViewport({ devicePixelRatio }, g)}
          />
        </div>
        <div className="mt-2 flex flex-wrap gap-1">
          {sizes.map(([width, height]) => (
            <button
              key={`${width}×${height}`}
              className="plain-button"
              aria-pressed={viewport.width === width && viewport.height === height}
              onClick={() => setViewport({ width, height })}
            >
              {width} × {height}
            </button>
          ))}
        </div>
      </PopOver>
    </Popover.Root>
  );
}

function CommandSearch() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const show = () => setOpen(true);
    window.addEventListener('astrolabe:search', show);
    return () => window.removeEventListener('astrolabe:search', show);
  }, []);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="find" aria-label="Search commands">
        <Find />
        <span>Commands</span>
        <kbd>/</kbd>
      </Popover.Trigger>
      <PopOver style={{ width: 380, padding: 0 }} align="end" aria-label="Commands">
        <Commands close={() => setOpen(false)} />
      </PopOver>
    </Popover.Root>
  );
}

/** More than this is not listed: who looks for more types on. */
const mostListed = 600;

/**
 * Follows the document only while the search is open; what there is for every body comes when the
 * rest stands and can be typed into.
 */
function Commands({ close }: { close: () => void }) {
  const project = useDocument((state) => state.project!);
  const navigate = useNavigate();
  const [typed, setTyped] = useState('');
  const [chosen, setChosen] = useState<string | null>(null);
  const [whole, setWhole] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setWhole(true), 30);
    return () => clearTimeout(timer);
  }, []);
  const list = useMemo(() => {
    const all = commandsFor(
      project,
      tasks,
      (route) => void navigate(`/${route}`),
      (task, selector) => goToElement(task, selector, navigate),
    );
    return found(all, typed, whole || typed.trim() !== '').slice(0, mostListed);
  }, [project, navigate, typed, whole]);
  // The best is chosen until the arrow keys say otherwise.
  const value = chosen !== null && list.some(({ title }) => title === chosen) ? chosen : (list[0]?.title ?? '');
  return (
    <Command label="Commands" shouldFilter={false} value={value} onValueChange={setChosen}>
      <Command.Input
        className="list-input"
        placeholder="A command, a field or a body"
        value={typed}
        onValueChange={(next) => {
          setTyped(next);
          setChosen(null);
        }}
      />
      <Command.List className="max-h-[360px] overflow-auto py-1">
        <Command.Empty className="px-3 py-2 text-ink2">No command, field or body has that in its name.</Command.Empty>
        {list.map(({ title, name, keys, where, run }, i) => (
          <Command.Item
            key={`${title} ${i}`}
            value={title}
            data-kind={where ? 'find' : undefined}
            className="menu-item"
            onSelect={() => {
              close();
              run();
            }}
          >
            {name}
            {(keys ?? where) && <span className="right">{keys ?? where}</span>}
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}

function Help() {
  const open = useSettings((state) => state.help);
  return (
    <button className="tool" aria-label="Help" aria-pressed={open} title="Help and keys (?)" onClick={toggleHelp}>
      <Question />
    </button>
  );
}
