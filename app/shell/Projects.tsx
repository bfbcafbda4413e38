import './Projects.css';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { versionDifferences } from '../../formats/compare';
import { readProject } from '../../formats/project';
import { edit, replaceProject, useDocument } from '../state/document';
import { newId } from '../state/crashLog';
import {
  deleteKept,
  duplicateKept,
  keepVersion,
  keptProjects,
  onShelf,
  openKept,
  openNew,
  renameKept,
  versionsOf,
} from '../state/autosave';
import type { Kept, Version } from '../state/projectRecords';
import { counted } from '../ui/figures';
import { complain, say } from '../ui/notices';
import { repairProject } from '../../formats/repair';
import { saveFile } from '../ui/files';
import { Beginnings } from './Beginnings';

/** What comes from the shelf, asked again whenever something on it changes. */
function useShelf<T>(ask: () => Promise<T>, first: T, key: string): T {
  const [value, setValue] = useState(first);
  const latest = useRef(ask);
  useEffect(() => {
    latest.current = ask;
  });
  useEffect(() => {
    let live = true;
    const look = () =>
      void latest.current().then(
        (found) => live && setValue(found),
        () => live && setValue(first),
      );
    look();
    const stop = onShelf(look);
    return () => {
      live = false;
      stop();
    };
    // What stands before the shelf answers plays no part afterwards.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return value;
}

const when = (at: number): string =>
  at ? new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' }).format(at) : 'set aside';

/** Every project kept in this browser, new ones, and the versions of the open one. */
export default function Projects() {
  const open = useDocument((state) => state.project!);
  const list = useShelf(keptProjects, [], open.id);
  const navigate = useNavigate();
  const work = () => void navigate('/frame');
  return (
    <main className="projects" aria-label="Projects">
      <div className="projects-page">
        <h1>Projects</h1>
        <p>Kept in this browser as you work. Save one as a file to take it elsewhere.</p>
        <div className="flex flex-wrap gap-1">
          <Beginnings done={work} />
          <button className="plain-button ml-auto" onClick={work}>
            Back to the bench
          </button>
        </div>
        <ul className="project-list" aria-label="Kept projects">
          {list.map((kept) => (
            <Row key={kept.id} kept={kept} open={kept.id === open.id} work={work} />
          ))}
        </ul>
        <Versions />
      </div>
    </main>
  );
}

function Row({ kept, open, work }: { kept: Kept; open: boolean; work: () => void }) {
  const [name, setName] = useState<string | null>(null);
  const project = kept.project as { bodies?: unknown[]; camera?: { kind?: string } };
  const rename = () => {
    const next = name?.trim();
    setName(null);
    if (!next || next === kept.name) return;
    if (open) edit('rename the project', (draft) => void (draft.name = next));
    else void renameKept(kept.id, next);
  };
  const remove = async () => {
    const back = await deleteKept(kept.id);
    if (back) say(`Deleted ${kept.name}.`, { label: 'Bring it back', run: () => void back() });
  };
  return (
    <li className={open ? 'is-on' : undefined}>
      {name === null ? (
        <button
          className="project-name"
          aria-current={open || undefined}
          onClick={() => {
            if (open) return work();
            void openKept(kept.id).then((why) => (why ? complain(`${kept.name} was not opened. ${why}`) : work()));
          }}
        >
          {kept.name}
        </button>
      ) : (
        <input
          className="project-name"
          aria-label="Name of the project"
          autoFocus
          value={name}
          maxLength={120}
          onChange={({ target }) => setName(target.value)}
          onBlur={rename}
          onKeyDown={({ key }) => {
            if (key === 'Enter') rename();
            if (key === 'Escape') setName(null);
          }}
        />
      )}
      <span className="project-facts">
        {project.camera?.kind === '2d' ? '2D' : '3D'}, {counted(project.bodies?.length ?? 0, 'body', 'bodies')}
        {open ? ', open' : ''}
      </span>
      <span className="project-facts">{when(kept.savedAt)}</span>
      {kept.savedAt === 0 && <SetAside kept={kept} work={work} />}
      <span className="project-acts">
        <button className="plain-button" aria-label={`Rename ${kept.name}`} onClick={() => setName(kept.name)}>
          Rename
        </button>
        <button
          className="plain-button"
          aria-label={`Duplicate ${kept.name}`}
          onClick={() => void duplicateKept(kept.id)}
        >
          Duplicate
        </button>
        <button
          className="plain-button"
          aria-label={`Delete ${kept.name}`}
          disabled={open}
          title={open ? 'Open another project first' : undefined}
          onClick={() => void remove()}
        >
          Delete
        </button>
      </span>
    </li>
  );
}

/** What can be done with a project that could not be read and was set aside. */
function SetAside({ kept, work }: { kept: Kept; work: () => void }) {
  const repair = () => {
    const repaired = repairProject(kept.project);
    if (!repaired)
      return complain(`${kept.name} was not opened: more than its numbers is wrong. Save it as a file; nothing of it is lost.`); // prettier-ignore
    const name = kept.name.replace(/, unread$/, '');
    const { replaced } = repaired;
    void openNew({ ...repaired.project, id: newId(), name }).then(() => {
      work();
      const places = replaced.slice(0, 3).map(({ path, by }) => `${path} is ${by}`);
      say(
        `Opened ${name} with ${counted(replaced.length, 'number', 'numbers')} replaced: ${places.join(', ')}${replaced.length > 3 ? ' and others' : ''}.`,
      );
    });
  };
  return (
    <span className="project-acts">
      <button className="plain-button" onClick={repair}>
        Open with its wrong numbers replaced
      </button>
      <button
        className="plain-button"
        onClick={() => saveFile(`${kept.name}.json`, JSON.stringify(kept.project, null, 2))}
      >
        Save it as it is
      </button>
    </span>
  );
}

/** The states of the open project that can be gone back to, each against how it is now. */
function Versions() {
  const project = useDocument((state) => state.project!);
  const list = useShelf<Version[]>(() => versionsOf(project.id), [], project.id);
  const [name, setName] = useState('');
  const [compared, setCompared] = useState<number | null>(null);
  const restore = (version: Version) => {
    const read = readProject(version.project);
    if (!read.ok) return complain(`${version.name} cannot be gone back to. ${read.problems[0]!.message}`);
    replaceProject(`go back to ${version.name}`, { ...read.project, id: project.id });
    say(`Back at ${version.name}. Undo brings back what was here.`);
  };
  return (
    <section aria-label="Versions">
      <h2>Versions of {project.name}</h2>
      <form
        className="flex gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          void keepVersion(name.trim() || 'Kept by hand');
          setName('');
        }}
      >
        <input
          className="version-name"
          aria-label="A name for the version"
          placeholder="A name for how it is now"
          value={name}
          maxLength={120}
          onChange={({ target }) => setName(target.value)}
        />
        <button className="plain-button">Keep a version</button>
      </form>
      {!list.length && <p>None yet. One is kept whenever you save the project as a file or as a request.</p>}
      <ul className="project-list" aria-label="Kept versions">
        {list.map((version) => {
          const found = versionDifferences(version.project, project, 200);
          return (
            <li key={version.key}>
              <span className="project-name">{version.name}</span>
              <span className="project-facts">
                {found.length === 0
                  ? 'as it is now'
                  : found.length === 1
                    ? '1 value differs'
                    : found.length < 200
                      ? `${found.length} values differ`
                      : 'much differs'}
              </span>
              <span className="project-facts">{when(version.at)}</span>
              <span className="project-acts">
                <button
                  className="plain-button"
                  aria-expanded={compared === version.key}
                  aria-label={`Compare ${version.name}`}
                  disabled={!found.length}
                  onClick={() => setCompared(compared === version.key ? null : version.key)}
                >
                  Compare
                </button>
                <button
                  className="plain-button"
                  aria-label={`Go back to ${version.name}`}
                  disabled={!found.length}
                  onClick={() => restore(version)}
                >
                  Go back to it
                </button>
              </span>
              {compared === version.key && found.length > 0 && (
                <table className="differences">
                  <thead>
                    <tr>
                      <th>where</th>
                      <th>then</th>
                      <th>now</th>
                    </tr>
                  </thead>
                  <tbody>
                    {found.slice(0, 12).map(({ path, before, after }) => (
                      <tr key={path}>
                        <td>{path}</td>
                        <td>{brief(before)}</td>
                        <td>{brief(after)}</td>
                      </tr>
                    ))}
                    {found.length > 12 && (
                      <tr>
                        <td colSpan={3}>and {found.length - 12} more</td>
                      </tr>
                    )}
                  </tbody>
                </table>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const brief = (value: unknown): string => {
  const text = value === undefined ? 'nothing' : JSON.stringify(value);
  return text.length > 40 ? `${text.slice(0, 39)}…` : text;
};
