import { useKeeping } from '../state/keep';
import { dismiss, useNotice } from '../ui/clipboard';

/** What just happened, or what is wrong; a failure to keep the project outranks both. */
export function Notice() {
  const { notice } = useNotice();
  const failed = useKeeping((state) => (state.state === 'failed' ? state.message : null));
  const shown = notice ?? (failed ? { text: failed, bad: true, places: [] } : null);
  if (!shown) return null;
  return (
    <div className={`notice${shown.bad ? ' bad' : ''}`} role={shown.bad ? 'alert' : 'status'}>
      <div>
        {shown.text}
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
      {shown.bad && notice && (
        <button className="plain-button" onClick={dismiss}>
          Dismiss
        </button>
      )}
    </div>
  );
}
