import './Notice.css';
import { keepMine, takeTheirs, useKeeping } from '../state/autosave';
import { dismiss, useNotices, type Notice } from '../ui/notices';

/**
 * What is said to the user: what happened, what is wrong, what takes its time; and what keeping has
 * to say.
 */
export function Notices() {
  const notices = useNotices((state) => state.notices);
  const { state, message, lack } = useKeeping();
  const text = (state === 'failed' || state === 'conflict') && message ? message : lack;
  // A conflict hides all other notices, and an unsaved change appears beside them. Missing browser features are
  // reported when there is no other notice.
  const kept = text !== null && (text !== lack || !notices.length);
  const shown = state === 'conflict' ? [] : notices;
  if (!kept && !shown.length) return null;
  return (
    <div className="notices">
      {kept && <Keeping text={text} state={text === lack ? 'lack' : state} />}
      {shown.map((notice) => (
        <One key={notice.id} notice={notice} />
      ))}
    </div>
  );
}

function Keeping({ text, state }: { text: string; state: string }) {
  return (
    <div className="notice bad" role="alert">
      <div>{text}</div>
      {state === 'failed' && (
        <button
          className="plain-button"
          onClick={() => void import('../edits/exporting').then(({ saveProject }) => saveProject())}
        >
          Save as a file
        </button>
      )}
      {state === 'conflict' && (
        <>
          <button className="plain-button" onClick={takeTheirs}>
            Take the other tab’s
          </button>
          <button className="plain-button" onClick={keepMine}>
            Go on with mine, as a copy
          </button>
        </>
      )}
      {state === 'lack' && (
        <button className="plain-button" onClick={() => useKeeping.setState({ lack: null })}>
          Dismiss
        </button>
      )}
    </div>
  );
}

function One({ notice: { id, kind, text, places, action, progress } }: { notice: Notice }) {
  const bad = kind === 'wrong' || kind === 'lasting';
  return (
    <div className={`notice${bad ? ' bad' : ''}`} role={bad ? 'alert' : 'status'}>
      <div>
        {text}
        {progress !== undefined && <progress aria-label={text} value={progress} max={1} />}
        {places.length > 0 && (
          <ul>
            {places.slice(0, 5).map(({ path, message }, i) => (
              <li key={i}>
                {/* Most sentences begin with the field they are about. */}
                {path && !message.startsWith(path) && <code>{path} </code>}
                {message}
              </li>
            ))}
            {places.length > 5 && <li>and {places.length - 5} more places</li>}
          </ul>
        )}
      </div>
      {action && (
        <button
          className="plain-button"
          onClick={() => {
            dismiss(id);
            action.run();
          }}
        >
          {action.label}
        </button>
      )}
      {bad && (
        <button className="plain-button" onClick={() => dismiss(id)}>
          Dismiss
        </button>
      )}
    </div>
  );
}
