import { useSettings } from '../state/settings';
import { Beginnings } from './Beginnings';

/** Names the open demo on a first visit, and offers the other ways to begin. */
export default function Welcome() {
  const hide = () => useSettings.setState({ isWelcome: false });
  return (
    <section aria-label="Begin with" className="tries">
      <div className="rule">
        Begin with
        <em>
          <button className="fold inline" onClick={hide}>
            Put away
          </button>
        </em>
      </div>
      <p>The harbour is open: a 3D demo. Begin there, or with something else.</p>
      <div className="mt-1 flex flex-wrap gap-1">
        <Beginnings done={hide} />
      </div>
    </section>
  );
}
