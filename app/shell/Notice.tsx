import { keepMine, takeTheirs, useKeeping } from '../state/keep';
import { dismiss, useNotice } from '../ui/clipboard';

/** What just happened, or what is wrong; a failure to keep the project outranks both. */
export function Notice() {
  const { notice } = useNotice();
  const { state, message, lack } = useKeeping();
  const text = (state === 'failed' || state === 'conflict') && message ? message : lack;
  const kept = text ? { text, bad: true, places: [], action: undefined, progress: undefined } : null;
  // Which of two states is to go on has to be said before anything else.
  const shown = state === 'conflict' ? kept : (notice ?? kept);
  if (!shown) return null;
  return (
    <div className={`notice${shown.bad ? ' bad' : ''}`} role={shown.bad ? 'alert' : 'status'}>
      <div>
        {shown.text}
        {shown.progress !== undefined && <progress aria-label={shown.text} value={shown.progress} max={1} />}
        {shown.places.length > 0 && (
          <ul>
            {shown.places.slice(0, 5).map(({ path, message }, i) => (
              <li key={i}>
                {/* Most sentences begin with the field they are about. */}
                {path && !message.startsWith(path) && <code>{path} </code>}
                {message}
              </li>
            ))}
            {shown.places.length > 5 && <li>and {shown.places.length - 5} more places</li>}
          </ul>
        )}
      </div>
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
      {shown.action && (
        <button
          className="plain-button"
          onClick={() => {
            dismiss();
            shown.action!.run();
          }}
        >
          {shown.action.label}
        </button>
      )}
      {shown.bad && (shown === notice || text === lack) && (
        <button
          className="plain-button"
          onClick={() => (shown === notice ? dismiss() : useKeeping.setState({ lack: null }))}
        >
          Dismiss
        </button>
      )}
    </div>
  );
}
