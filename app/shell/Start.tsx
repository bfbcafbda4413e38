import './Start.css';
import { lazy, Suspense, useEffect, useState } from 'react';
import { usePart } from '../state/tempo';
import { useSettings } from '../state/settings';
import { useTable } from '../state/table';
import { Check } from '../ui/icons';
import type { AnyTask, Try } from '../tasks/task';

const EmptyStart = lazy(() => import('./EmptyStart'));
const Welcome = lazy(() => import('./Welcome'));

/**
 * The head of a worksheet: ways to begin on the first visit, exercises of a demo, or how to fill an empty
 * project.
 */
export function Start({ task }: { task: AnyTask }) {
  const { guide, empty } = usePart(({ project }) => ({
    guide: project.guide,
    empty: !project.bodies.length && !project.tiles,
  }));
  const hasTable = useTable(({ table }) => table !== null);
  const away = useSettings((state) => state.triesAway);
  const isWelcome = useSettings((state) => state.isWelcome);
  const list = guide ? task.tries?.[guide] : undefined;
  if (empty && !hasTable)
    return (
      <Suspense>
        <EmptyStart />
      </Suspense>
    );
  return (
    <>
      {isWelcome && (
        <Suspense>
          <Welcome />
        </Suspense>
      )}
      {list && !away && <Tries key={task.route} list={list} />}
    </>
  );
}

function Tries({ list }: { list: readonly Try[] }) {
  // One text, so that a picture that moves does not draw this again.
  const { now } = usePart((moment) => ({ now: list.map((one) => (one.done(moment) ? '1' : '0')).join('') }));
  const tried = useSettings((state) => state.tried);
  // What was all done on an earlier visit has said what it had to say.
  const [known] = useState(() => list.every(({ id }) => tried.includes(id)));
  useEffect(() => {
    const done = list.filter(({ id }, i) => now[i] === '1' && !tried.includes(id)).map(({ id }) => id);
    if (done.length) useSettings.setState({ tried: [...tried, ...done] });
  }, [now, list, tried]);
  if (known) return null;
  return (
    <section aria-label="To try" className="tries">
      <div className="rule">
        To try
        <em>
          <button className="fold inline" onClick={() => useSettings.setState({ triesAway: true })}>
            Put away
          </button>
        </em>
      </div>
      <ol>
        {list.map(({ id, text }, i) => (
          <li key={id} className={tried.includes(id) ? 'done' : undefined}>
            <span className="try-no">
              {tried.includes(id) ? <Check /> : i + 1}
              {tried.includes(id) && <span className="sr-only">Done:</span>}
            </span>
            {text}
          </li>
        ))}
      </ol>
    </section>
  );
}
