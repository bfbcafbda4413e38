import { Command } from 'cmdk';
import { Popover } from 'radix-ui';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { useDocument } from '../state/document';
import { loadAllTasks, useTasks } from '../tasks/page';
import type { TriggerLook } from '../ui/deferred';
import { PopOver } from '../ui/PopOver';
import { goToElement } from '../working/sources';
import { commandsFor } from './commands';
import { findEntries } from './search';

/** The search for commands, fields, help and bodies. */
export default function CommandSearch({ trigger }: { trigger: TriggerLook }) {
  const [open, setOpen] = useState(true);
  useEffect(() => {
    const show = () => setOpen(true);
    window.addEventListener('astrolabe:search', show);
    return () => window.removeEventListener('astrolabe:search', show);
  }, []);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger {...trigger} />
      <PopOver style={{ width: 380, padding: 0 }} align="end" aria-label="Search">
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
  const tasks = useTasks(({ loaded }) => loaded);
  useEffect(() => void loadAllTasks().catch(() => undefined), []);
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
    return findEntries(all, typed, whole || typed.trim() !== '').slice(0, mostListed);
  }, [project, tasks, navigate, typed, whole]);
  // The best is chosen until the arrow keys say otherwise.
  const value = chosen !== null && list.some(({ title }) => title === chosen) ? chosen : (list[0]?.title ?? '');
  return (
    <Command label="Search" shouldFilter={false} value={value} onValueChange={setChosen}>
      <Command.Input
        className="list-input"
        placeholder="Commands, fields, help, bodies"
        value={typed}
        onValueChange={(next) => {
          setTyped(next);
          setChosen(null);
        }}
      />
      <Command.List className="max-h-[360px] overflow-auto py-1">
        <Command.Empty className="px-3 py-2 text-ink2">Nothing matches all of these words. Try fewer.</Command.Empty>
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
