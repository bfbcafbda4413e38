import { otherCameras } from './otherCameras';
import { degrees } from '../../../core/math/angle';
import type { CameraFrame } from '../../../core/camera/frame';
import { addScaled, type Vec3 } from '../../../core/math/vec3';
import type { Moment } from '../../state/moment';
import type { PictureView, Word } from './contract';
import { cutPoint, pictureCorners } from './drawings';
import type { Spot } from './labels';
import { n2, type Mark } from './marks';

/** Close by: a name must not be taken for another's. */
const beside: readonly Spot[] = [
  { dx: 8, dy: -9, anchor: 'start' },
  { dx: -8, dy: -9, anchor: 'end' },
  { dx: 8, dy: 11, anchor: 'start' },
  { dx: -8, dy: 11, anchor: 'end' },
];

/** How far a small frustum reaches, in pixels of the page. */
const reach = 26;

/** An eye with its name and a short frustum, or on a flat world the frame of its picture. */
export function otherCameraMarks(view: PictureView, now: Moment): { marks: Mark[]; words: Word[] } {
  const marks: Mark[] = [];
  const words: Word[] = [];
  for (const { camera, frame } of otherCameras(now)) {
    if (camera.kind === '2d') {
      const corners = pictureCorners(frame, 0);
      const d = view.line(corners, true);
      const at = view.point(corners[3]);
      if (d) marks.push({ ink: 'other-frustum', d });
      if (at) words.push({ text: camera.name, at, ink: 'note-muted', priority: 30 });
      continue;
    }
    const eye = view.point(frame.eye);
    if (!eye) continue;
    // As long on the page wherever it stands: a unit there says how far that is.
    const unit = view.point(addScaled(frame.eye, view.frame.right, perPixelAt(view, frame.eye)));
    const scale = unit ? Math.max(1e-9, Math.hypot(unit[0] - eye[0], unit[1] - eye[1])) : 1;
    const ahead = (reach / scale) * perPixelAt(view, frame.eye);
    const { extents: e, near, kind } = frame;
    const at = kind === 'perspective' ? Math.max(ahead, near) : Math.max(near, 0) + ahead;
    const corners = (
      [
        [e.left, e.bottom],
        [e.right, e.bottom],
        [e.right, e.top],
        [e.left, e.top],
      ] as const
    ).map(([r, u]) => cutPoint(frame, at, r, u));
    // Wide as it may be, the sign for it stays small.
    const small = corners.map((p) => shortened(frame.eye, p, ahead));
    marks.push({
      ink: 'other-frustum',
      d: view.line(small, true) + small.map((p) => view.line([frame.eye, p])).join(''),
    });
    marks.push({ ink: 'other-eye', x: eye[0], y: eye[1], d: `M0 ${n2(-4)}L3.5 3.5H-3.5Z`, turn: turnOf(view, frame) });
    words.push({ text: camera.name, at: eye, ink: 'note-muted', priority: 30, spots: beside });
  }
  return { marks, words };
}

/** No farther from the eye than so. */
function shortened(eye: Vec3, p: Vec3, most: number): Vec3 {
  const d = Math.hypot(p[0] - eye[0], p[1] - eye[1], p[2] - eye[2]);
  const k = d > 1.6 * most ? (1.6 * most) / d : 1;
  return [eye[0] + (p[0] - eye[0]) * k, eye[1] + (p[1] - eye[1]) * k, eye[2] + (p[2] - eye[2]) * k];
}

/** About how many world units a pixel of the page is at a point. */
function perPixelAt({ frame, size }: PictureView, p: Vec3): number {
  const { extents: e, near, kind, forward, eye } = frame;
  const high = (e.top - e.bottom) / size.height;
  if (kind === 'orthographic') return high;
  const ahead = forward.reduce((sum, f, i) => sum + f * (p[i]! - eye[i]!), 0);
  return (high * Math.max(ahead, near)) / near;
}

/** The turn of an eye's sign on the page, so that it points along the gaze. */
function turnOf(view: PictureView, frame: CameraFrame): number {
  const [a, b] = [
    view.point(frame.eye),
    view.point(addScaled(frame.eye, frame.forward, perPixelAt(view, frame.eye) * 10)),
  ];
  return a && b ? degrees(Math.atan2(b[1] - a[1], b[0] - a[0])) + 90 : 0;
}
