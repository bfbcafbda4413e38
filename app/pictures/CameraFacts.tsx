import { anglesOfBasis } from '../../core/camera/orientation';
import { radians } from '../../core/math/angle';
import type { ProjectCamera2d } from '../../formats/project';
import { useMoment } from '../state/tempo';
import { editable, figure } from '../ui/figures';

/** The camera's chief numbers over its picture. */
export function CameraFacts() {
  const { frame, codec: e, project } = useMoment();
  if (project.camera.kind === '2d') return <FlatFacts camera={project.camera} />;
  const p = project.camera.projection;
  const degrees = e.conventions.angles.unit === 'degrees';
  const angle = (radians: number) => `${figure(radians, degrees ? 2 : 4)}${degrees ? '°' : ''}`;
  const { yaw, pitch } = e.toAngles(anglesOfBasis(frame));
  const short = (v: number) => figure(v, Number.isInteger(v) ? 0 : 2);
  return (
    <span className="facts">
      <span>
        {p.kind === 'perspective' ? 'vertical ' : 'height '}
        <b>{p.kind === 'perspective' ? angle(e.toAngle(radians(p.verticalFov))) : short(p.height)}</b>
      </span>
      <span className="lesser">
        near <b>{short(frame.near)}</b>
        far <b>{frame.far === null ? 'infinite' : short(frame.far)}</b>
      </span>
      <span className="least">
        pitch <b>{angle(pitch)}</b>
        yaw <b style={{ marginRight: 0 }}>{angle(yaw)}</b>
      </span>
    </span>
  );
}

function FlatFacts({ camera }: { camera: ProjectCamera2d }) {
  const { codec: e, points } = useMoment();
  const degrees = e.conventions.angles.unit === 'degrees';
  const turn = e.toAngle(radians(camera.rotation));
  return (
    <span className="facts">
      <span>
        zoom <b>{editable(camera.zoom)}</b>
      </span>
      <span>
        focus{' '}
        <b>
          {points
            .show([...camera.focus, 0])
            .map((v) => figure(v, 2))
            .join(', ')}
        </b>
      </span>
      <span>
        rotation{' '}
        <b style={{ marginRight: 0 }}>
          {figure(turn, degrees ? 1 : 3)}
          {degrees ? '°' : ''}
        </b>
      </span>
    </span>
  );
}
