import { DataList, type ListColumn } from '../../sheet/DataList';
import { lookThrough } from '../../edits/cameras';
import { allCameras } from '../../../formats/project';
import { journeyAt } from '../../state/journey';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { playFromStart, takeKind } from './edits';
import { beginsElsewhere, journeyOf, trackOf } from './journey';
import { flatKinds, travelKinds, travelSpan, type MotionState, type TravelKind } from './kept';
import { travelWords } from './words';
import { Terms } from './Terms';
import { Shake } from './Shake';

/** The cameras with what each does, and the track of the one looked through. */
export function Track() {
  const now = useTaskMoment<MotionState>('motion');
  const { project, slice, flat } = now;
  const track = trackOf(now);
  const kind = track?.travel.kind ?? 'rest';
  const journey = journeyOf(now);
  const made = journey && journeyAt(journey, now.time);
  const followed = track?.travel.kind === 'follow' ? track.travel.body : null;
  const lost =
    followed !== null && !project.bodies.some(({ id }) => id === followed)
      ? 'The body that is followed is gone. Choose another.'
      : track && flat && !flatKinds.includes(kind)
        ? `A flat camera cannot do this: it ${travelWords[kind]} in space alone. Choose scrolling or following.`
        : made && !made.ok
          ? made.message
          : null;
  interface Row {
    readonly id: string;
    readonly name: string;
    readonly does: string;
  }
  const rows = allCameras(project).map(({ id, name }): Row => {
    const own = slice.tracks[id];
    const shake = own?.shake ? ', shaken' : '';
    return { id, name, does: `${travelWords[own?.travel.kind ?? 'rest']}${shake}` };
  });
  const columns: readonly ListColumn<Row>[] = [
    { name: 'Camera', width: '1fr', value: ({ name }) => name },
    { name: 'does', width: '1.2fr', value: ({ does }) => does },
  ];
  const leaps = journey !== null && beginsElsewhere(journey, now.rest);
  // What has an end of its own; all else goes on.
  const ends = ['path', 'walk', 'dollyZoom', 'blend'].includes(kind);
  const span = track && ends ? travelSpan(track) : null;
  return (
    <>
      {rows.length > 1 && (
        <DataList
          name="cameras"
          rows={rows}
          keyOf={({ id }) => id}
          columns={columns}
          chosen={project.camera.id}
          onChoose={({ id }) => lookThrough(id)}
          most={6}
        />
      )}
      <div className="row mt-1">
        <button className="plain-button" disabled={!journey} onClick={playFromStart}>
          Play from the start
        </button>
        {span !== null && <span className="text-note text-ink2">{figure(span, 1)} s</span>}
      </div>
      <div className="row">
        <label htmlFor="motion-kind">Camera</label>
        <select
          id="motion-kind"
          className="select"
          data-source="track"
          value={kind}
          onChange={({ target }) => takeKind(target.value as TravelKind)}
        >
          {travelKinds.map((one) => (
            <option key={one} value={one} disabled={flat && !flatKinds.includes(one)}>
              {travelWords[one]}
            </option>
          ))}
        </select>
      </div>
      {lost && (
        <p className="warning" data-testid="track-lost">
          {lost}
        </p>
      )}
      {track && <Terms travel={track.travel} />}
      {leaps && (
        <p className="warning" data-testid="track-leaps">
          The track does not begin where the camera stands: at time 0 the picture is the camera as Frame has it, and
          leaps to the track from there.
        </p>
      )}
      {!flat && <Shake />}
    </>
  );
}
