import type { Vec2, Vec3 } from '../math/vec3';
import { follow, type FollowTerms } from './follow';

/** A place that goes straight from point to point, resting before the first and after the last. */
export type Course<Point> = readonly (readonly [time: number, point: Point])[];

/** The first bend of a course after a time: its length where there is none. */
function bendAfter(course: Course<unknown>, time: number): number {
  let [low, high] = [0, course.length];
  while (low < high) {
    const half = (low + high) >> 1;
    if (course[half]![0] > time) high = half;
    else low = half + 1;
  }
  return low;
}

/** Where a course of at least one point is at a time. */
export function onCourse<Point extends Vec2 | Vec3>(course: Course<Point>, time: number): Point {
  const next = bendAfter(course, time);
  if (next === 0) return course[0]![1];
  if (next === course.length) return course[next - 1]![1];
  const [[a, from], [b, to]] = [course[next - 1]!, course[next]!];
  const share = (time - a) / (b - a);
  return from.map((v, i) => v + (to[i]! - v) * share) as unknown as Point;
}

/**
 * How far the place that is held has come from its beginning, the course's first point, as a
 * function of the time: solved from one bend of the course to the next, each bend once, so that any
 * moment of a long course is at hand. The course has at least one point; times rise strictly.
 */
export function follower<Point extends Vec2 | Vec3>(
  course: Course<Point>,
  terms: FollowTerms,
): (time: number) => Point {
  const first = course[0]![1];
  // The place held at each bend, as far as it was asked.
  const held: Point[] = [first];
  return (time) => {
    const next = Math.max(1, bendAfter(course, time));
    while (held.length < next) {
      const i = held.length;
      held.push(follow(held[i - 1]!, course[i - 1]![1], course[i]![1], terms, course[i]![0] - course[i - 1]![0]));
    }
    const [from, at] = course[next - 1]!;
    const now = time > from ? follow(held[next - 1]!, at, onCourse(course, time), terms, time - from) : held[next - 1]!;
    return now.map((v, i) => v - first[i]!) as unknown as Point;
  };
}
