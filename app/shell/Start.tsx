import './Start.css';
import { useEffect, useState } from 'react';
import { addBody } from '../edits/bodies';
import { chooseFile } from '../edits/actions';
import { usePart } from '../state/tempo';
import { useSettings } from '../state/settings';
import { useTable } from '../state/table';
import { Check } from '../ui/icons';
import type { AnyTask, Try } from '../tasks/task';

/**
 * What stands at the head of a worksheet to begin with: things to try on a demo, or how to fill an
 * empty project.
 */
export function Start({ task }: { task: AnyTask }) {
  const { guide, empty } = usePart(({ project }) => ({
    guide: project.guide,
    empty: !project.bodies.length && !project.tiles,
  }));
  const hasTable = useTable(({ table }) => table !== null);
  const away = useSettings((state) => state.triesAway);
  const list = guide ? task.tries?.[guide] : undefined;
  if (empty && !hasTable) return <Empty />;
  return list && !away ? <Tries key={task.route} list={list} /> : null;
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

function Empty() {
  const { flat } = usePart(({ flat }) => ({ flat }));
  return (
    <section aria-label="To begin with" className="tries">
      <div className="rule">To begin with</div>
      <p>
        Nothing stands here yet. Bring in {flat ? '' : 'a scene (glTF), a model (OBJ), '}points (CSV), a compute request
        or a project: as a file, or dropped or pasted anywhere.
      </p>
      <div className="mt-1">
        <button className="plain-button" onClick={() => chooseFile(undefined, 'project')}>
          From a file…
        </button>
      </div>
      <p className="mt-2">Or put something where the probe is, of a size to be seen:</p>
      <div className="mt-1 flex flex-wrap gap-1">
        {(['box', 'sphere', 'point'] as const).map((kind) => (
          <button
            key={kind}
            className="plain-button"
            aria-label={`Add a ${kind} at the probe`}
            onClick={() => addBody(kind)}
          >
            a {kind}
          </button>
        ))}
      </div>
    </section>
  );
}
