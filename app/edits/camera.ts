import { degrees, radians } from '../../core/math/angle';
import { cameraInSpace } from '../../formats/camera';
import { anglesOfBasis } from '../../core/camera/orientation';
import { rayThrough, pixelToPicture, worldToViewRuf } from '../../core/convert/project';
import { addScaled, distance, dot, type Vec2, type Vec3 } from '../../core/math/vec3';
import { editCamera } from '../state/document';
import { useSettings } from '../state/settings';
import { currentMoment } from '../state/tempo';

/*
 * What the hand in a picture does to the camera. Numbers are kept short: a drag is no finer than
 * the pixels it is made of.
 */

const short = (value: number, decimals = 3) => Number(value.toFixed(decimals)) || 0;
const shortPoint = (p: Vec3): [number, number, number] => [short(p[0]), short(p[1]), short(p[2])];

/**
 * Sets yaw and pitch in degrees; a camera that looks at a point has the point moved round it
 * instead.
 */
export function turnTo(yaw: number, pitch: number, gesture: string): void {
  const { project, frame } = currentMoment();
  const o = cameraInSpace(project).orientation;
  // Straight up or down yaw and roll would turn about one line.
  const steepest = Math.min(89.9, useSettings.getState().pitchLimit);
  const p = Math.max(-steepest, Math.min(steepest, pitch));
  editCamera(
    'turn the camera',
    (camera) => {
      if (o.kind !== 'lookAt') {
        const roll = o.kind === 'angles' ? o.roll : short(degrees(anglesOfBasis(frame).roll), 4);
        camera.orientation = { kind: 'angles', yaw: short(wrap(yaw), 4), pitch: short(p, 4), roll };
      } else {
        const [y, q] = [radians(yaw), radians(p)];
        const gaze: Vec3 = [Math.sin(y) * Math.cos(q), Math.sin(q), -Math.cos(y) * Math.cos(q)];
        camera.orientation = {
          ...o,
          target: shortPoint(addScaled(frame.eye, gaze, distance(frame.eye, o.target))),
        };
      }
    },
    gesture,
  );
}

const wrap = (angle: number) => ((((angle + 180) % 360) + 360) % 360) - 180;

/** Turns the camera so that what lay under one pixel comes to lie about under another. */
export function turnBetween(from: Vec2, to: Vec2, start: { yaw: number; pitch: number }, gesture: string): void {
  const { frame } = currentMoment();
  if (frame.kind === 'orthographic')
    return turnTo(start.yaw - (to[0] - from[0]) * 0.2, start.pitch + (to[1] - from[1]) * 0.2, gesture);
  const { extents: e, near, viewport: v } = frame;
  const angle = (pixel: number, low: number, high: number, size: number) =>
    degrees(Math.atan((low + ((high - low) * pixel) / size) / near));
  const across = angle(to[0], e.left, e.right, v.width) - angle(from[0], e.left, e.right, v.width);
  const upward =
    angle(v.height - to[1], e.bottom, e.top, v.height) - angle(v.height - from[1], e.bottom, e.top, v.height);
  turnTo(start.yaw - across, start.pitch - upward, gesture);
}

export function anglesNow(): { yaw: number; pitch: number } {
  const { frame, project } = currentMoment();
  const o = cameraInSpace(project).orientation;
  if (o.kind === 'angles') return o;
  const { yaw, pitch } = anglesOfBasis(frame);
  return { yaw: degrees(yaw), pitch: degrees(pitch) };
}

/**
 * Puts the eye at a point; a camera that looks at a point goes on looking at it unless `carryAim`
 * takes it along.
 */
export function moveEye(to: Vec3, gesture: string, carryAim = false): void {
  const { project } = currentMoment();
  const { position, orientation: o } = cameraInSpace(project);
  editCamera(
    'move the camera',
    (camera) => {
      camera.position = shortPoint(to);
      if (carryAim && o.kind === 'lookAt') {
        const moved = [0, 1, 2].map((i) => o.target[i]! + camera.position[i]! - position[i]!) as unknown as Vec3;
        camera.orientation = { ...o, target: shortPoint(moved) };
      }
    },
    gesture,
  );
}

/**
 * Moves the camera across the picture so that what lay under one pixel at a distance ahead comes to
 * lie under another.
 */
export function panBetween(from: Vec2, to: Vec2, eye: Vec3, ahead: number, gesture: string): void {
  const { frame } = currentMoment();
  const { extents: e, viewport: v, near } = frame;
  const k = frame.kind === 'perspective' ? ahead / near : 1;
  const right = (((to[0] - from[0]) * (e.right - e.left)) / v.width) * k;
  const upward = (((to[1] - from[1]) * (e.top - e.bottom)) / v.height) * k;
  moveEye(addScaled(addScaled(eye, frame.right, -right), frame.up, upward), gesture, true);
}

/**
 * Goes ahead by a share of the way to the probe, or of the near distance's scale without one. In
 * orthographic it changes the height seen.
 */
export function goAhead(share: number, gesture: string): void {
  const { project, frame, chain } = currentMoment();
  if (frame.kind === 'orthographic') return scaleView(1 - share, gesture);
  const ahead = chain.ok ? worldToViewRuf(frame, chain.value.world)[2] : 0;
  const way = Math.max(ahead, frame.near * 4);
  moveEye(addScaled(cameraInSpace(project).position, frame.forward, way * share), gesture, true);
}

/**
 * Multiplies the size of what is seen: the tangent of half the field of view, or the orthographic
 * height.
 */
export function scaleView(factor: number, gesture: string): void {
  const { project } = currentMoment();
  const p = cameraInSpace(project).projection;
  if (p.kind === 'perspective')
    setVerticalFov(2 * degrees(Math.atan(Math.tan(radians(p.verticalFov) / 2) * factor)), gesture);
  else setHeight(p.height * factor, gesture);
}

export const setVerticalFov = (fov: number, gesture: string): void =>
  editCamera(
    'change the field of view',
    (camera) => {
      if (camera.projection.kind === 'perspective')
        camera.projection.verticalFov = short(Math.min(170, Math.max(0.5, fov)), 3);
    },
    gesture,
  );

export const setHeight = (height: number, gesture: string): void =>
  editCamera(
    'change the height seen',
    (camera) => {
      if (camera.projection.kind === 'orthographic')
        camera.projection.height = Number(Math.max(1e-3, height).toPrecision(5));
    },
    gesture,
  );

/** Sets near or far to a number as it is. */
export const setLimit = (end: 'near' | 'far', ahead: number, gesture: string): void =>
  editCamera(`move ${end}`, ({ projection }) => void (projection[end] = ahead), gesture);

/** Moves near or far to a distance ahead, never past the other. */
export const setDepthLimit = (end: 'near' | 'far', ahead: number, gesture: string): void =>
  editCamera(
    `move ${end}`,
    ({ projection: p }) => {
      // As short as a drag is fine, but where the limits are close together, as long as keeps them apart.
      const kept = (v: number, decimals: number, fits: (v: number) => boolean) =>
        fits(short(v, decimals)) ? short(v, decimals) : Number(v.toPrecision(6));
      const far = p.far ?? Infinity;
      if (end === 'far') p.far = kept(Math.max(ahead, p.near * 1.01 + 0.01), 1, (v) => v > p.near);
      else {
        const least = p.kind === 'perspective' ? Math.min(0.01, far / 1000) : -1e6;
        const most = p.kind === 'perspective' || far > 0 ? far * 0.999 : far * 1.001;
        p.near = kept(Math.max(least, Math.min(ahead, most)), 2, (v) => v < far && (p.kind !== 'perspective' || v > 0));
      }
    },
    gesture,
  );

/**
 * The distance ahead at which dragging the picture holds on: the surface or ground under the pixel,
 * else the probe's.
 */
export function holdDistance(pixel: Vec2): number {
  const { frame, project, chain, sceneBounds } = currentMoment();
  const ray = rayThrough(frame, ...pixelToPicture(frame, pixel));
  if (project.ground) {
    const t = (project.ground.height - ray.origin[1]) / ray.direction[1];
    const ahead = t * dot(ray.direction, frame.forward);
    if (ahead > 0 && ahead < 20 * sceneBounds.radius) return ahead;
  }
  return chain.ok && chain.value.viewRuf[2] > 0 ? chain.value.viewRuf[2] : sceneBounds.radius / 2;
}
