import { frameFov } from '../../../core/camera/frame';
import { anglesOfBasis } from '../../../core/camera/orientation';
import { radians } from '../../../core/math/angle';
import type { ProjectCamera2d } from '../../../formats/project';
import { useMoment } from '../../state/tempo';
import { angleText, turnText } from '../../ui/angles';
import { editable, figure } from '../../ui/figures';

/** The camera's chief numbers over its picture. */
export function CameraFacts() {
  const { frame, codec: e, project } = useMoment();
  if (project.camera.kind === '2d') return <FlatFacts camera={project.camera} />;
  const { extents: x } = frame;
  const fov = frameFov(frame);
  const { yaw, pitch } = anglesOfBasis(frame);
  const short = (v: number) => figure(v, Number.isInteger(v) ? 0 : 2);
  return (
    <span className="facts">
      <span>
        {fov === null ? 'height ' : 'vertical '}
        <b>{fov === null ? short(Math.abs(x.top - x.bottom)) : angleText(e, fov)}</b>
      </span>
      <span>
        near <b>{short(frame.near)}</b>
        far <b>{frame.far === null ? 'infinite' : short(frame.far)}</b>
      </span>
      <span>
        pitch <b>{turnText(e, 'pitch', pitch)}</b>
        yaw <b style={{ marginRight: 0 }}>{turnText(e, 'yaw', yaw)}</b>
      </span>
    </span>
  );
}

function FlatFacts({ camera }: { camera: ProjectCamera2d }) {
  const { codec: e, points, frame, rest } = useMoment();
  // The picture has moved by as much as its focus.
  const focus = [camera.focus[0] + frame.eye[0] - rest.eye[0], camera.focus[1] + frame.eye[1] - rest.eye[1], 0] as const; // prettier-ignore
  return (
    <span className="facts">
      <span>
        zoom <b>{editable(camera.zoom)}</b>
      </span>
      <span>
        focus{' '}
        <b>
          {points
            .show(focus)
            .map((v) => figure(v, 2))
            .join(', ')}
        </b>
      </span>
      <span>
        rotation <b style={{ marginRight: 0 }}>{angleText(e, radians(camera.rotation), 1)}</b>
      </span>
    </span>
  );
}
