import { viewRufPlanes, type CameraFrame, type ViewRufPlane } from '../../../core/camera/frame';
import {
  pictureToPixel,
  projectPoint,
  worldToPixel,
  worldToViewRuf,
  viewRufToWorld,
} from '../../../core/convert/project';
import { dot, type Vec2, type Vec3 } from '../../../core/math/vec3';
import { clipPolygon } from '../../../core/order/clip';
import type { PictureView, Size } from './contract';
import { closed, n2 } from './marks';

/**
 * The planes that lines and areas are cut at: what has a picture, and the picture's edges. Far is
 * no edge.
 */
const cutting = ['near', 'left', 'right', 'bottom', 'top'] as const;

/** A picture as what is drawn over it sees it: from world geometry to paths, cut once, here. */
export function pictureView(name: PictureView['name'], frame: CameraFrame, size: Size): PictureView {
  const scale = size.width / frame.viewport.width;
  const { x: left, y: top } = frame.viewport;
  const onPage = (pixel: Vec2): Vec2 => [(pixel[0] - left) * scale, (pixel[1] - top) * scale];
  const planes = viewRufPlanes(frame).filter((plane) => cutting.some((one) => one === plane.name));
  /** A point that is known to be ahead. */
  const place = (viewRuf: Vec3): Vec2 => {
    const { picture } = projectPoint(frame, viewRufToWorld(frame, viewRuf));
    if (!picture.ok) return [NaN, NaN];
    return onPage(pictureToPixel(frame, picture.value.across, picture.value.upward));
  };

  return {
    name,
    frame,
    size,
    scale,
    point: (p) => {
      if (frame.kind === 'perspective' && worldToViewRuf(frame, p)[2] < frame.near) return null;
      const pixel = worldToPixel(frame, p);
      return pixel.ok ? onPage(pixel.value) : null;
    },
    line: (points, close = false) => {
      const all = points.map((p) => worldToViewRuf(frame, p));
      if (close && all.length > 2) all.push(all[0]!);
      let path = '';
      let last: Vec2 | null = null;
      for (let i = 1; i < all.length; i++) {
        const cut = cutSegment(planes, all[i - 1]!, all[i]!);
        if (!cut) {
          last = null;
          continue;
        }
        const [a, b] = [place(cut[0]), place(cut[1])];
        if (!last || Math.hypot(a[0] - last[0], a[1] - last[1]) > 1e-6) path += `M${n2(a[0])} ${n2(a[1])}`;
        path += `L${n2(b[0])} ${n2(b[1])}`;
        last = b;
      }
      return path;
    },
    area: (polygon) => {
      const corners = clipPolygon(frame, polygon, cutting);
      return corners.length > 2 ? closed(corners.map(({ viewRuf }) => place(viewRuf))) : '';
    },
  };
}

/**
 * What of a segment lies on the inner side of all planes, in (right, up, ahead); null when nothing
 * does.
 */
function cutSegment(planes: readonly ViewRufPlane[], a: Vec3, b: Vec3): readonly [Vec3, Vec3] | null {
  let [from, to] = [0, 1];
  for (const { normal, offset } of planes) {
    const [da, db] = [dot(normal, a) + offset, dot(normal, b) + offset];
    if (da < 0 && db < 0) return null;
    if (da < 0) from = Math.max(from, da / (da - db));
    else if (db < 0) to = Math.min(to, da / (da - db));
  }
  if (from >= to) return null;
  const at = (t: number): Vec3 => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t];
  return [at(from), at(to)];
}
