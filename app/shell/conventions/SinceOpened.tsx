import { anglesOfBasis } from '../../../core/camera/orientation';
import { codecOf, type ConventionCodec } from '../../../core/conventions/codec';
import { sameConventions, type Conventions } from '../../../core/conventions/conventions';
import type { Vec3 } from '../../../core/math/vec3';
import { expressCamera2d } from '../../../formats/camera';
import type { Project, ProjectCamera2d } from '../../../formats/project';
import { keepNumbers } from '../../../formats/reinterpret';
import { keepNumbersIn } from '../../edits/keepNumbers';
import { pointFormOf } from '../../state/points';
import { useMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';

/** Where a camera stands, or what it is focused on. */
const placeOf = ({ camera }: Pick<Project, 'camera'>): Vec3 =>
  camera.kind === '2d' ? [...camera.focus, 0] : camera.position;

/**
 * What has become of a few numbers since the sheet was opened, and the other command: to keep the
 * numbers and change what they mean.
 */
export function SinceOpened({ before, now, onKept }: { before: Conventions; now: Conventions; onKept: () => void }) {
  const { project, chain, frame, flat } = useMoment();
  if (sameConventions(before, now)) return null;
  const [a, b] = [codecOf(before), codecOf(now)];
  const world = chain.ok ? chain.value.world : null;
  const list = (v: readonly number[] | null) => (v ? v.map((n) => figure(n, 2)).join(', ') : 'none');
  const kept = keepNumbers({ ...project, conventions: before as typeof project.conventions }, now);
  const stand = placeOf(project);
  const moved = placeOf(kept).some((v, i) => Math.abs(v - stand[i]!) > 1e-9);
  const angles = anglesOfBasis(frame);
  const rows: [string, (e: ConventionCodec) => string][] = [
    [flat ? 'Focus' : 'Eye', (e) => list(pointFormOf(e, flat).show(stand))],
    ['Probe', (e) => list(world && pointFormOf(e, flat).show(world))],
    project.camera.kind === '2d'
      ? ['Anchor', (e) => list(expressCamera2d(project.camera as ProjectCamera2d, frame.viewport, e).anchor)]
      : ['Yaw, pitch', (e) => list([e.toAngles(angles).yaw, e.toAngles(angles).pitch])],
  ];
  return (
    <div className="since">
      <div className="rule">
        Since this was opened <em>the picture has not moved</em>
      </div>
      <table>
        <thead>
          <tr>
            <td />
            <th>was</th>
            <th>is now</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, say]) => (
            <tr key={name}>
              <th>{name}</th>
              <td>{say(a)}</td>
              <td>{say(b)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-1 flex items-center gap-2">
        <button
          className="plain-button"
          onClick={() => {
            keepNumbersIn(before, now);
            onKept();
          }}
        >
          Keep the numbers instead
        </button>
        <span className="text-small text-ink2">
          {moved ? 'every number stays as it was written, and the scene moves' : 'every number stays as it was written'}
        </span>
      </div>
    </div>
  );
}
