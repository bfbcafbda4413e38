import type { SetUp3d } from './cameraSetup';
import { placed, plain, vec } from './texts';

/* The parts that stand on the frame: boards, where to appear, how to zoom and follow, what to draw by. */

export function billboardPart({ e }: SetUp3d, orthographic: boolean): string {
  const crossed = (a: string, b: string) => (e.handedness.world === 'right' ? `cross(${a}, ${b})` : `cross(${b}, ${a})`); // prettier-ignore
  const up = vec(placed(e.conventions.world, ['0', '1', '0']));
  const toEye = orthographic ? '-frame.forward' : 'normalize(frame.eye - position)';
  // An orthographic eye is infinitely far: where the board stands plays no part.
  const position = orthographic ? '' : ', position: vec3';
  return `
// A board's own axes: to the right of what is written on it, up, and out of its front.
struct Board {
  right: vec3,
  up: vec3,
  normal: vec3,
}
// Parallel to the view plane.
fn board_in_view_plane(frame: Frame): Board {
  return Board { frame.right, frame.up, -frame.forward };
}
// Turned about an axis of length 1 as near towards a direction as that allows; straight along the axis the
// camera's right is kept.
fn board_about_axis(frame: Frame, axis: vec3, towards: vec3): Board {
  let wanted = towards - axis * dot(towards, axis);
  if length(wanted) < 0.000001 {
    let kept = normalize(frame.right - axis * dot(frame.right, axis));
    return Board { kept, axis, ${crossed('kept', 'axis')} };
  }
  let normal = normalize(wanted);
  return Board { ${crossed('axis', 'normal')}, axis, normal };
}
// Towards the eye, its up as near to the world's as that allows.
fn board_towards_eye(frame: Frame${position}): Board {
  let normal = ${toEye};
  let across = ${crossed(up, 'normal')};
  if length(across) < 0.000001 {
    return Board { frame.right, ${crossed('normal', 'frame.right')}, normal };
  }
  let right = normalize(across);
  return Board { right, ${crossed('normal', 'right')}, normal };
}
// Upright, towards the eye.
fn board_upright(frame: Frame${position}): Board {
  return board_about_axis(frame, ${up}, ${toEye});
}`;
}

/** Stands for infinity in ranges of edges: single precision has it. */
const farthest = 1e30;

export function spawnPart({ footprint }: SetUp3d): string {
  const n = footprint.length;
  if (!n) return '';
  const pairs = (list: readonly (readonly number[])[]) =>
    list.map((pair) => `vec2(${pair.map((v) => plain(Math.max(-farthest, Math.min(farthest, v)))).join(', ')})`).join(', '); // prettier-ignore
  return `
// The edges of the ground that the camera sees: a corner, a direction with the visible side to its left, and how far
// the edge extends along it.
const seen_corners = [${pairs(footprint.map(({ corner }) => corner))}];
const seen_directions = [${pairs(footprint.map(({ direction }) => direction))}];
const seen_ranges = [${pairs(footprint.map(({ range }) => range))}];
// Whether a body of a radius may appear at a place of the ground: the disc around it must keep clear of the view,
// by the padding.
fn may_appear(place: vec2, radius: num, padding: num): bool {
  var inside = true;
  var nearest = ${plain(farthest)};
  for i in 0..${n} {
    let from_corner = place - seen_corners[i];
    let direction = seen_directions[i];
    let range = seen_ranges[i];
    if direction.x * from_corner.y - direction.y * from_corner.x < 0 {
      inside = false;
    }
    let along = max(range.x, min(range.y, direction.x * from_corner.x + direction.y * from_corner.y));
    let off = from_corner - direction * along;
    nearest = min(nearest, sqrt(off.x * off.x + off.y * off.y));
  }
  return !inside && nearest >= radius + padding;
}`;
}

export function dollyZoomPart({ e }: SetUp3d, orthographic: boolean): string {
  if (orthographic) return '';
  const back = e.conventions.angles.unit === 'degrees' ? ' * 180 / pi' : '';
  return `
// The vertical field of view that shows the same height of the world from another distance.
fn fov_for_height(height: num, distance: num): num {
  return 2 * atan(height / 2 / distance)${back};
}
// How much of the world the picture is high, so far ahead.
fn height_at(frame: Frame, distance: num): num {
  return 2 * frame.half_size.y * distance;
}`;
}

export const followPart = `
// One coordinate of a followed place after a time step: unmoved while the target stays within the zone
// about it, else half the way to its edge in every half life. Steps of any length end at the same place.
fn follow(held: num, wanted: num, zone: num, half_life: num, dt: num): num {
  var goal = held;
  if wanted > held + zone {
    goal = wanted - zone;
  }
  if wanted < held - zone {
    goal = wanted + zone;
  }
  if half_life <= 0 {
    return goal;
  }
  return goal + (held - goal) * exp2(-dt / half_life);
}`;

export const orderPart = (orthographic: boolean): string => `
// Keys to draw by, the farthest first: by the distance along the gaze, or from the eye.
fn key_ahead(frame: Frame, point: vec3): num {
  return dot(point - frame.eye, frame.forward);
}
fn key_distance(frame: Frame, point: vec3): num {
  return length(point - frame.eye);
}
// By the height on the screen: the higher, the farther. Of points in front of the eye alone.
fn key_screen_height(frame: Frame, point: vec3): num {
  return dot(point - frame.eye, frame.up)${orthographic ? '' : ' / dot(point - frame.eye, frame.forward)'};
}`;
