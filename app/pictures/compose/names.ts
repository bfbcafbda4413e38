import { degrees } from '../../../core/math/angle';
import { flatCamera } from '../../../formats/camera';
import { boundingSphere, localBounds } from '../../../core/bodies/body';
import type { CameraFrame } from '../../../core/camera/frame';
import {
  viewRufToWorld,
  pictureToViewRuf,
  pixelsPerUnit,
  worldToViewRuf,
  worldToPixel,
} from '../../../core/convert/project';
import { transformPoint } from '../../../core/math/mat4';
import { addScaled, type Vec2, type Vec3 } from '../../../core/math/vec3';
import { horizonPixels } from '../../../core/order/horizon';
import { pickFlat } from '../../../core/pick/pick';
import type { ProjectBody } from '../../../formats/project';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { rowsOf } from '../../state/tileRows';
import { figure } from '../../ui/figures';
import type { PictureView, Word } from './contract';
import { pictureCorners } from './drawings';
import { placeWords } from './placement';
import { overlap, place, textWidth, type Label, type Rect } from './labels';
import { n2, probeMarks, type Mark, type Text } from './marks';
import { textBox } from './textBoxes';

/* What the house draws over the camera's picture: the limits of the ground, and the names. */

/**
 * Where the far plane cuts the ground, as pixels of the viewport; null where it does not within the
 * picture.
 */
function farLine({ frame, project }: Moment): [Vec2, Vec2] | null {
  const { ground } = project;
  if (!ground || frame.far === null) return null;
  const far = frame.far;
  const corner = (x: number, y: number) => viewRufToWorld(frame, pictureToViewRuf(frame, x, y, far));
  const corners: Vec3[] = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
  const points: Vec3[] = [];
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % 4]!;
    const [ha, hb] = [a[1] - ground.height, b[1] - ground.height];
    if (ha < 0 === hb < 0) return;
    const t = ha / (ha - hb);
    points.push([a[0] + (b[0] - a[0]) * t, ground.height, a[2] + (b[2] - a[2]) * t]);
  });
  const [a, b] = points.map((p) => worldToPixel(frame, p));
  if (!a?.ok || !b?.ok) return null;
  return a.value[0] <= b.value[0] ? [a.value, b.value] : [b.value, a.value];
}

/** The horizon of the ground, and how far of it is in the picture; their names join the others. */
export function groundMarks({ size: { width }, scale }: PictureView, moment: Moment): { marks: Mark[]; words: Word[] } {
  const { frame, project } = moment;
  const horizon = project.ground ? horizonPixels(frame, [0, 1, 0]) : null;
  const far = farLine(moment);
  const path = ([a, b]: [Vec2, Vec2]) =>
    `M${n2(a[0] * scale)} ${n2(a[1] * scale)}L${n2(b[0] * scale)} ${n2(b[1] * scale)}`;
  const at = ([a, b]: [Vec2, Vec2], x: number): Vec2 => {
    const t = Math.max(0, Math.min(1, (x / scale - a[0]) / (b[0] - a[0] || 1)));
    return [(a[0] + (b[0] - a[0]) * t) * scale, (a[1] + (b[1] - a[1]) * t) * scale];
  };
  const marks: Mark[] = [];
  const words: Word[] = [];
  /** A name on a line: just above it where there is room, else farther along, else below. */
  const name = (line: [Vec2, Vec2], x: number, text: string) =>
    words.push({
      ...{ text, at: at(line, x), ink: 'note-muted', priority: 15 },
      spots: [0, 70, 140, 210, -70].flatMap((dx) => [
        { dx, dy: -8, anchor: 'start' as const },
        { dx, dy: 9, anchor: 'start' as const },
      ]),
    });
  const [, hy] = horizon ? at(horizon, 10) : [0, 0];
  const [, fy] = far ? at(far, width * 0.3) : [0, 0];
  if (horizon) {
    marks.push({ ink: 'horizon', d: path(horizon) });
    name(horizon, 10, 'horizon');
  }
  if (far) marks.push({ ink: 'far-line', d: path(far) });
  if (far && (!horizon || Math.abs(fy - hy) > 16))
    name(far, width * 0.3, `far limit ${figure(frame.far!, Number.isInteger(frame.far) ? 0 : 1)}`);
  return { marks, words };
}

/** A name at the edge, for what is off the picture. */
interface EdgeWord extends Label {
  readonly text: string;
}

interface Landmark {
  readonly id: string;
  readonly name: string;
  /**
   * The handle, then the middles and corners of the body's and its parts' own boxes, in the world.
   */
  readonly points: readonly Vec3[];
  readonly radius: number;
}

/** What can be named in the picture: bodies that are no part of another. */
const landmarksOf = memo(
  (bodies: readonly ProjectBody[], placed: Moment['placed'], roots: Moment['roots']): Landmark[] => {
    const found = new Map<string, { id: string; name: string; points: Vec3[]; radius: number }>();
    for (const { id, name, handle } of bodies) {
      const one = placed.get(id)!;
      const root = roots.get(id)!;
      const { centre, half } = localBounds(one.body.shape);
      const at = (x: number, y: number, z: number) =>
        transformPoint(one.toWorld, [centre[0] + half[0] * x, centre[1] + half[1] * y, centre[2] + half[2] * z]);
      const signs = [-1, 1] as const;
      const corners = signs.flatMap((x) => signs.flatMap((y) => signs.map((z) => at(x, y, z))));
      if (root === id)
        found.set(id, { id, name, points: [transformPoint(one.toWorld, handle)], radius: boundingSphere(one).radius });
      // A part may be listed before what it is a part of.
      found.get(root)?.points.push(at(0, 0, 0), ...corners);
    }
    return [...found.values()];
  },
);

/**
 * Where in the picture a landmark is named: at its handle, or at the point of it that lies nearest
 * the middle of what is in the picture.
 */
function shownSpot(frame: CameraFrame, points: readonly Vec3[]): Vec2 | null {
  const { width, height } = frame.viewport;
  const seen: Vec2[] = [];
  for (const [i, p] of points.entries()) {
    if (worldToViewRuf(frame, p)[2] < frame.near) continue;
    const pixel = worldToPixel(frame, p);
    if (!pixel.ok) continue;
    const [x, y] = pixel.value;
    if (x < 0 || y < 0 || x > width || y > height) continue;
    if (i === 0) return pixel.value;
    seen.push(pixel.value);
  }
  if (!seen.length) return null;
  const middle = [0, 1].map((i) => seen.reduce((sum, p) => sum + p[i as 0 | 1], 0) / seen.length) as [number, number];
  const off = (p: Vec2) => Math.hypot(p[0] - middle[0], p[1] - middle[1]);
  return seen.reduce((best, p) => (off(p) < off(best) ? p : best));
}

/** The least radius on the page, in pixels, that a body must show to be named. */
const leastNamed = 10;
/** The most names that are tried: more find no room. */
const mostNamed = 60;

/**
 * The names in the picture, those of the task among them: the probe's first, then by their priority
 * and the nearest; bodies off the picture at its edge; the rest counted.
 */
export function nameMarks(
  { size: { width, height }, scale }: PictureView,
  moment: Moment,
  selected: readonly string[],
  ofTask: readonly Word[],
  ofMarks: readonly Rect[] = [],
): Mark[] {
  const { frame, project, placed, roots, chain, flat, codec: e } = moment;
  const landmarks = landmarksOf(project.bodies, placed, roots);
  const bounds: Rect = { x: 3, y: 3, width: width - 6, height: height - 6 };
  // The line that counts unnamed bodies keeps its place.
  const countLine: Rect = { x: width - 206, y: height - 22, width: 206, height: 22 };
  const taken: Rect[] = [...ofMarks, countLine];
  if (flat) {
    const [x, y] = flatCamera(project).anchor;
    taken.push({ x: x * scale - 9, y: y * scale - 9, width: 18, height: 18 });
  }
  const probe = chain.ok && chain.value.pixel.ok && !chain.value.outside.length ? chain.value.pixel.value : null;
  const probeRoot = project.probe.body === null ? null : roots.get(project.probe.body);
  let probeLabel: { x: number; y: number; anchor: 'start' | 'middle' | 'end' } | null = null;
  const probeName = project.bodies.find(({ id }) => id === project.probe.body)?.name ?? 'Free point';
  if (probe) {
    const [x, y] = [probe[0] * scale, probe[1] * scale];
    taken.push({ x: x - 17, y: y - 17, width: 34, height: 34 });
    const wide = Math.max(textWidth(probeName) + 8, 104);
    // Beside the mark, left for choice; where neither side has room, above or below it.
    const side = x - 22 - wide > 0 ? 'end' : x + 20 + wide < width ? 'start' : 'middle';
    const beside = side === 'middle' ? (y > 60 ? y - 34 : y + 34) : y;
    probeLabel = {
      x: side === 'end' ? x - 20 : side === 'start' ? x + 20 : Math.max(wide / 2, Math.min(width - wide / 2, x)),
      y: Math.max(16, Math.min(height - 14, beside)),
      anchor: side,
    };
    const left = side === 'end' ? x - 20 - wide : side === 'start' ? x + 18 : probeLabel.x - wide / 2;
    taken.push({ x: left, y: probeLabel.y - 17, width: wide, height: 30 });
  }
  const inside: { id: string; word: Word; ahead: number; apparent: number; isPoint: boolean }[] = [];
  const outside: { word: EdgeWord; apparent: number; ahead: number; angle: number; ex: number; ey: number }[] = [];
  for (const { id, name, points, radius } of landmarks) {
    if (id === probeRoot) continue;
    const parts = worldToViewRuf(frame, points[0]!);
    // The handle if it is in the picture, else the middle of what is.
    const spot = shownSpot(frame, points);
    const far = frame.far !== null && parts[2] > frame.far;
    const apparent = radius * pixelsPerUnit(frame, Math.hypot(...parts))[0] * scale;
    if (spot) {
      const [x, y] = [spot[0] * scale, spot[1] * scale];
      const text = far ? `${name}, beyond far` : name;
      const chosen = selected.includes(id);
      // On a flat world the nearest are those nearest the middle.
      const ahead = flat ? Math.hypot(...parts) : parts[2];
      inside.push({
        ...{ id, apparent, ahead },
        // A point's mark is as large wherever it is.
        isPoint: radius === 0,
        word: {
          ...{ text, at: [x, y], leader: true, ink: chosen ? 'name-chosen' : 'name' },
          // Selected ones choose first, then the nearest.
          priority: chosen ? 10 : 40 + ahead / (ahead + moment.sceneBounds.radius),
        },
      });
      continue;
    }
    // Behind the eye too, the way to turn is where the point lies to the right and above.
    const pixel = worldToPixel(frame, points[0]!);
    const [cx, cy] = [width / 2, height / 2];
    const [dx, dy] = pixel.ok ? [pixel.value[0] * scale - cx, pixel.value[1] * scale - cy] : [parts[0], -parts[1]];
    const k = Math.min(cx / Math.max(1e-9, Math.abs(dx)), cy / Math.max(1e-9, Math.abs(dy)));
    const [ex, ey] = [cx + dx * k, cy + dy * k];
    const spots =
      Math.abs(Math.abs(dx) * k - cx) < 0.5
        ? [{ dx: dx > 0 ? -25 : 25, dy: 0, anchor: dx > 0 ? ('end' as const) : ('start' as const) }]
        : [0, -60, 60].map((shift) => ({ dx: shift + 8, dy: dy > 0 ? -20 : 20, anchor: 'middle' as const }));
    outside.push({
      apparent,
      ahead: Math.hypot(...parts),
      angle: degrees(Math.atan2(dy, dx)),
      ex,
      ey,
      word: {
        key: id,
        x: ex,
        y: Math.max(10, Math.min(height - 10, ey)),
        text: name,
        width: textWidth(name) + 14,
        spots,
      },
    });
  }
  // What is too small to be told apart gets no name before it is come nearer to.
  const large = inside
    .filter((one) => one.apparent >= leastNamed || one.isPoint || selected.includes(one.id))
    .sort((a, b) => a.word.priority - b.word.priority)
    .slice(0, mostNamed);
  const isFree = ({ ex, ey }: { ex: number; ey: number }) => !overlap(countLine, { x: ex, y: ey, width: 1, height: 1 });
  const near = outside.filter((one) => one.apparent >= leastNamed && isFree(one)).sort((a, b) => a.ahead - b.ahead);
  const named = placeWords([...ofTask, ...large.map(({ word }) => word)], bounds, taken);
  const edge = place(
    near.slice(0, 6).map(({ word }) => word),
    { x: 0, y: 0, width, height },
    [...taken, ...named.boxes],
  );
  const filled = [...taken, ...named.boxes, ...edge.placed.map(({ box }) => box)];
  const figures = (flat ? tileFigures(moment, width, height, scale) : []).filter(
    ({ x, y }) => !filled.some((box) => overlap(box, { x: x - 14, y: y - 7, width: 28, height: 14 })),
  );
  const marks: Mark[] = figures.map(({ x, y, text }) => ({
    ink: 'sounding',
    x,
    y: y + 4,
    anchor: 'middle',
    text,
  }));
  marks.push(...named.marks);
  for (const { label, box } of edge.placed) {
    const { angle, ex, ey } = outside.find(({ word }) => word === label)!;
    const [x, y] = [Math.max(6, Math.min(width - 6, ex)), Math.max(6, Math.min(height - 6, ey))];
    marks.push(
      { ink: 'edge-arrow', x, y, turn: angle, d: 'M5 0L-3 -3.5V3.5Z' },
      // The ring of what is outside.
      {
        ink: 'edge-ring',
        x: box.x + 7,
        y: box.y + 7.5,
        d: 'M3.825 0A3.825 3.825 0 1 1 -3.825 0A3.825 3.825 0 1 1 3.825 0Z',
      },
      { ink: 'name', x: box.x + 15, y: box.y + 11.5, text: label.text },
    );
  }
  const unnamed = inside.filter(({ word }) => !named.placed.has(word)).length;
  const off = outside.length - edge.placed.length;
  if (unnamed + off > 0) {
    const parts = [unnamed ? `${unnamed} more in view` : '', off ? `${off} more off the picture` : ''];
    const line = (text: string): Text => ({ ink: 'note-muted', x: width - 8, y: height - 8, anchor: 'end', text });
    // A narrow picture has room for the sum alone.
    const fitting = [parts.filter(Boolean).join(', '), `${unnamed + off} more`].map(line);
    const counted = fitting.find((one) => textBox(one).x > 4);
    if (counted) marks.push(counted);
  }
  if (probe && probeLabel) {
    const { x, y, anchor } = probeLabel;
    marks.push(...probeMarks([probe[0] * scale, probe[1] * scale], 8), {
      ink: 'name-strong',
      x,
      y: y - 5,
      anchor,
      text: probeName,
    });
    if (chain.ok && chain.value.picture.ok) {
      const { across, upward } = chain.value.picture.value;
      const screen = e.toScreen(frame.viewport, across, upward);
      marks.push({ ink: 'figure-brass', x, y: y + 9, anchor, text: screen.map((v) => figure(v, 2)).join(', ') });
    }
  }
  return marks;
}

/** The numbers of a map as many as have room in a picture, in its own pixels; none on a body. */
function tileFigures(
  { frame, project, placed }: Moment,
  width: number,
  height: number,
  scale: number,
): { key: number; x: number; y: number; text: string }[] {
  const { tiles } = project;
  if (!tiles) return [];
  const { corner, size, columns, values, images = [] } = tiles;
  const pixels = size * pixelsPerUnit(frame, 0)[0] * scale;
  const stride = [1, 2, 4, 8, 16, 32].find((k) => k * pixels >= 44);
  if (!stride) return [];
  const bodies = [...placed.values()];
  const out: { key: number; x: number; y: number; text: string }[] = [];
  // Only the tiles under the picture: its corners in the map say which.
  const at = pictureCorners(frame, 0);
  const range = (i: 0 | 1, count: number) => {
    const cells = at.map((p) => (p[i] - corner[i]) / size);
    const first = Math.max(0, Math.floor(Math.min(...cells) / stride) * stride);
    return [first, Math.min(count - 1, Math.max(...cells))] as const;
  };
  const [[c0, c1], [r0, r1]] = [range(0, columns), range(1, rowsOf(tiles))];
  for (let row = r0; row <= r1; row += stride)
    for (let column = c0; column <= c1; column += stride) {
      const value = values[row * columns + column];
      if (value === null || value === undefined || images[value]) continue;
      const middle: Vec3 = [corner[0] + (column + 0.5) * size, corner[1] + (row + 0.5) * size, 0];
      const pixel = worldToPixel(frame, middle);
      if (!pixel.ok) continue;
      const [x, y] = [pixel.value[0] * scale, pixel.value[1] * scale];
      if (x < 14 || y < 10 || x > width - 14 || y > height - 10) continue;
      // The whole figure must be clear of bodies.
      const perPixel = size / pixels;
      const ends = [-16, 0, 16].flatMap((across) =>
        [-8, 0, 8].map((up) => addScaled(addScaled(middle, frame.right, across * perPixel), frame.up, up * perPixel)),
      );
      if (ends.every((p) => !pickFlat(p, bodies).length))
        out.push({ key: row * columns + column, x, y, text: figure(value, 1) });
    }
  return out;
}
