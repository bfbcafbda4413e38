import { mendOf } from '../../edits/mends';
import { currentMoment, usePart } from '../../state/tempo';
import { meaning } from '../../ui/Term';
import { useFailure } from './picturesClient';
import { rulerX, rulerY } from '../compose/slots';

/**
 * Why the picture is not what is asked for, with the mend: in the corner of the plate, over all
 * that is painted.
 */
export function Trouble({ left, bottom }: { left: number; bottom: number }) {
  const failed = useFailure((state) => state.message);
  const { problem } = usePart(({ seen }) => ({ problem: seen.problems[0] ?? null }));
  const { project } = currentMoment();
  if (failed === null && !problem) return null;
  const mend = failed === null ? mendOf(problem!, project) : null;
  return (
    <div className="stale-note" style={{ left: left + rulerX + 12, bottom: bottom + rulerY + 12 }} role="alert">
      <b>{failed === null ? 'This is the last camera that could be.' : 'No pictures here.'}</b>{' '}
      {failed ?? problem!.message}{' '}
      {mend && (
        <button className="plain-button" title={meaning('mend')} onClick={mend.run}>
          {mend.label}
        </button>
      )}
    </div>
  );
}
