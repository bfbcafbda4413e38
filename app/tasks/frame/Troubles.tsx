import { mendOf } from '../../shell/mends';
import { useSituation } from '../../state/derive';

/** What is wrong with the camera, each with its mend. */
export function Troubles() {
  const { project, seen } = useSituation();
  return seen.problems.map((problem) => {
    const mend = mendOf(problem, project);
    return (
      <p key={problem.path} className="field-note" role="alert">
        <code>{problem.path.replace(/^camera\./, '')}</code> {problem.message} The pictures show the last camera that
        could be.{' '}
        {mend && (
          <button className="plain-button" onClick={mend.run}>
            {mend.label}
          </button>
        )}
      </p>
    );
  });
}
