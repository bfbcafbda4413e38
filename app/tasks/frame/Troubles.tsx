import { mendOf } from '../../edits/mends';
import { meaning } from '../../ui/Term';
import { useMoment } from '../../state/tempo';

/** What is wrong with the camera, each with its mend. */
export function Troubles() {
  const { project, seen } = useMoment();
  return seen.problems.map((problem) => {
    const mend = mendOf(problem, project);
    return (
      <p key={problem.path} className="field-note" role="alert">
        {problem.message} The pictures show the last camera that could be.{' '}
        {mend && (
          <button className="plain-button" title={meaning('mend')} onClick={mend.run}>
            {mend.label}
          </button>
        )}
      </p>
    );
  });
}
