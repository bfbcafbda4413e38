import './Help.css';
import { useLayoutEffect, useRef } from 'react';
import { usePart } from '../state/tempo';
import { useSettings } from '../state/settings';
import { keySheet } from './commands';
import type { AnyTask } from '../tasks/task';
import { helpFor } from './help';

/** The help, beside the task and never in its way: the worksheet goes on being used. */
export default function Help({ task }: { task: AnyTask | null }) {
  const { flat } = usePart(({ flat }) => ({ flat }));
  const head = useRef<HTMLHeadingElement>(null);
  const close = () => useSettings.setState({ help: false });
  useLayoutEffect(() => {
    // The keyboard goes where the reading is, and back to where it was; not away from what has been
    // begun since.
    const before = document.activeElement as HTMLElement | null;
    if (document.querySelector('.pop')) return undefined;
    head.current?.focus();
    return () => (before?.isConnected && before !== document.body ? before.focus() : undefined);
  }, []);
  return (
    <aside
      className="help"
      aria-label="Help"
      onKeyDown={({ key, nativeEvent }) => {
        if (key !== 'Escape') return;
        nativeEvent.stopPropagation();
        close();
      }}
    >
      <div className="caption">
        <h2 tabIndex={-1} ref={head}>
          Help with {task?.name ?? 'projects'}
        </h2>
        <span className="space" />
        <button className="small" onClick={close}>
          Close
        </button>
      </div>
      {helpFor(task, flat).map(({ title, text }) => (
        <section key={title} data-passage={title} tabIndex={-1}>
          <h3>{title}</h3>
          {text.map((paragraph) => (
            <p key={paragraph}>{paragraph}</p>
          ))}
        </section>
      ))}
      <section aria-label="Keys">
        <h3>Keys and hands</h3>
        <dl>
          {[...keySheet, ...(task?.keys ?? []).map(({ key, says }) => [key.toUpperCase(), says] as const)].map(
            ([keys, what]) => (
              <div key={keys}>
                <dt>{keys}</dt>
                <dd>{what}</dd>
              </div>
            ),
          )}
        </dl>
      </section>
    </aside>
  );
}
