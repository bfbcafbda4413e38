import type { Vec2, Vec3 } from '../../../core/math/vec3';
import { footOf } from '../../../core/bodies/body';
import type { ClippedCorner } from '../../../core/order/clip';
import { vanishingPoint } from '../../../core/order/horizon';
import { worldTriangles } from '../../../core/order/paint';
import { shadowTriangles } from '../../../core/order/shadow';
import { pictureToPixel, viewRufToWorld } from '../../../core/convert/project';
import type { CameraFrame } from '../../../core/camera/frame';
import { letterOf } from '../../../core/conventions/axes';
import type { Drawn, GpuLayer, Marks, PictureView, Word } from '../../pictures/compose/contract';
import { mapLines } from '../../pictures/compose/contourLines';
import { bodyRectangles } from '../../pictures/compose/bodyRectangles';
import { n2, type Mark } from '../../pictures/compose/marks';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { figure } from '../../ui/figures';
import { errorMap } from './contours';
import { lightOf, receiverOf, type ProjectLight } from '../../state/light';
import { type ThreeWays, followedPolygon, threeWays, turnsOver } from './followed';
import type { Painted } from './job';
import { paintedMark, paintingNow } from './painted';
import type { OrderState } from './kept';

interface Derived {
  readonly three: ThreeWays | null;
  readonly shadow: GpuLayer | null;
}

let revision = 0;
/** The shadows of all bodies that cast one, as triangles on the receiver about a place of their own. */
const shadowLayer = memo((placed: Moment['placed'], light: ProjectLight, receiver: number, centre: Vec3): GpuLayer => {
  const casting = [...placed.values()].filter(({ body }) => body.castsShadow);
  const { corners } = worldTriangles(casting);
  const found = shadowTriangles(lightOf(light), receiverOf({ receiver }), corners);
  const origin: Vec3 = [centre[0], receiver, centre[2]];
  return {
    ...{ key: 'shadow', kind: 'triangles', origin, tint: 'shade', opacity: 0.6, hatch: true, union: true },
    positions: Float32Array.from(found, (v, i) => v - origin[i % 3]!),
    revision: ++revision,
  };
});
/** Far beyond any picture: places off it are drawn no farther. */
const farthest = 1e5;
const held = ([x, y]: Vec2): Vec2 => [
  Math.max(-farthest, Math.min(farthest, x)),
  Math.max(-farthest, Math.min(farthest, y)),
];

/** The corners of a cut polygon in the world. */
const corners = (frame: CameraFrame, cut: readonly ClippedCorner[]): Vec3[] =>
  cut.map(({ viewRuf }) => viewRufToWorld(frame, viewRuf));

/** The polygon in a picture: as given, cut at near, cut at the frustum, its corners named alike everywhere. */
function polygonIn(
  view: PictureView,
  frame: CameraFrame,
  three: ThreeWays,
  turned: boolean,
): Required<Pick<Drawn, 'marks' | 'words'>> {
  const { polygon, near, frustum, names } = three;
  const inFrustum = corners(frame, frustum);
  const marks: Mark[] = [
    { ink: 'path', d: view.line(polygon, true) },
    { ink: 'region', d: view.area(inFrustum) },
    { ink: 'region-edge', d: view.line(inFrustum, true) },
  ];
  // In the camera's own picture near cuts nothing that is seen.
  if (view.name !== 'camera') marks.push({ ink: 'ray', d: view.line(corners(frame, near), true) });
  const words: Word[] = [];
  const name = (p: Vec3, text: string, ink: Word['ink'], priority: number) => {
    const at = view.point(p);
    if (at) words.push({ text, at, ink, priority, mono: true });
  };
  polygon.forEach((p, i) => name(p, String(i + 1), 'figure-brass', 2));
  const seen = new Set<string>();
  for (const cut of [frustum, near])
    for (const one of cut) {
      const text = names.get(one)!;
      if (one.along === 0 || seen.has(text)) continue;
      seen.add(text);
      name(viewRufToWorld(frame, one.viewRuf), text, 'figure', 3);
    }
  // On the screen the face runs the other way when that is supposed; in the drawings of the world it does not.
  const running = turned && view.name === 'camera' ? inFrustum.toReversed() : inFrustum;
  return { marks: [...marks, ...sense(view, running)], words };
}

/** Which way a polygon runs: an arrowhead in the middle of every edge that is long enough. */
function sense(view: PictureView, polygon: readonly Vec3[]): Mark[] {
  const places = polygon.map((p) => view.point(p));
  return places.flatMap((a, i): Mark[] => {
    const b = places[(i + 1) % places.length];
    if (!a || !b) return [];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    if (Math.hypot(dx, dy) < 26) return [];
    const turn = (Math.atan2(dy, dx) * 180) / Math.PI;
    return [{ ink: 'ray-head', d: 'M5 0L-4 -3.4V3.4Z', x: (a[0] + b[0]) / 2, y: (a[1] + b[1]) / 2, turn }];
  });
}

/** What dividing by w without clipping would paint: its ghosts and the streaks to them. */
function ghostsIn({ frame, scale }: PictureView, { unclipped }: ThreeWays): Required<Pick<Drawn, 'marks' | 'words'>> {
  const places = unclipped.map(({ position }) => {
    if (!position) return null;
    const [px, py] = pictureToPixel(frame, ...position);
    return held([(px - frame.viewport.x) * scale, (py - frame.viewport.y) * scale]);
  });
  const marks: Mark[] = [];
  const words: Word[] = [];
  places.forEach((a, i) => {
    const j = (i + 1) % places.length;
    const b = places[j];
    const [one, other] = [unclipped[i]!, unclipped[j]!];
    if (a && b && (one.ghost || other.ghost))
      marks.push({ ink: 'fault', d: `M${n2(a[0])} ${n2(a[1])}L${n2(b[0])} ${n2(b[1])}` });
    if (a && one.ghost) {
      marks.push({ ink: 'fault', x: a[0], y: a[1], d: 'M-4 -4L4 4M-4 4L4 -4' });
      words.push({ text: `${i + 1} ghost`, at: a, ink: 'error-note', priority: 2 });
    }
  });
  return { marks, words };
}

const axes = [
  ['right', [1, 0, 0]],
  ['left', [-1, 0, 0]],
  ['up', [0, 1, 0]],
  ['down', [0, -1, 0]],
  ['forward', [0, 0, -1]],
  ['back', [0, 0, 1]],
] as const;

/** The vanishing points that lie in the picture, and how upright things lean at the probe. */
function vanishingIn(
  view: PictureView,
  { frame, codec, chain }: Moment<OrderState>,
): Required<Pick<Drawn, 'marks' | 'words'>> {
  const marks: Mark[] = [];
  const words: Word[] = [];
  const { world } = codec.conventions;
  const onPage = (position: Vec2): Vec2 => {
    const [px, py] = pictureToPixel(frame, ...position);
    return held([(px - frame.viewport.x) * view.scale, (py - frame.viewport.y) * view.scale]);
  };
  for (const [name, direction] of axes) {
    const found = vanishingPoint(frame, direction);
    if (!found.ok) continue;
    const at = onPage(found.value);
    if (name === 'up' || name === 'down') {
      // From the probe towards where everything upright runs.
      const probe = chain.ok ? view.point(chain.value.world) : null;
      if (probe) marks.push({ ink: 'sight-line', d: `M${n2(probe[0])} ${n2(probe[1])}L${n2(at[0])} ${n2(at[1])}` });
    }
    if (at[0] < 0 || at[1] < 0 || at[0] > view.size.width || at[1] > view.size.height) continue;
    marks.push({ ink: 'path-key', x: at[0], y: at[1], d: 'M0 -4.5L4.5 0 0 4.5 -4.5 0Z' });
    const axis =
      name === 'back' || name === 'forward' ? 'forward' : name === 'left' || name === 'right' ? 'right' : 'up';
    const same = name === axis;
    const sign = (world[axis].startsWith('-') ? !same : same) ? '+' : '\u2212';
    words.push({ text: `parallels of ${sign}${letterOf(world[axis])}`, at, ink: 'note', priority: 15 });
  }
  return { marks, words };
}

/** Lines of one error of the angular mapping, with their pixels. */
function contoursIn(view: PictureView): Required<Pick<Drawn, 'marks' | 'words'>> {
  const map = errorMap(view.frame);
  return map ? mapLines(view, map, (level) => `${figure(level, level < 1 ? 2 : 0)} px`) : { marks: [], words: [] };
}

const joined = (parts: readonly Required<Pick<Drawn, 'marks' | 'words'>>[]) => ({
  marks: parts.flatMap(({ marks }) => marks),
  words: parts.flatMap(({ words }) => words),
});

/** The most feet that are marked. */
const mostFeet = 300;

/** The feet by which the bodies of a 2D world are sorted. */
function feetIn(view: PictureView, now: Moment<OrderState>): Mark[] {
  const marks: Mark[] = [];
  for (const one of now.placed.values()) {
    const at = one.body.foot && view.point(footOf(one));
    if (!at) continue;
    const [x, y] = at;
    if (x < 0 || y < 0 || x > view.size.width || y > view.size.height) continue;
    const d = 'M-7 0H7M0 -4V0';
    marks.push({ ink: 'probe-halo', x, y, d }, { ink: 'foot', x, y, d });
    if (marks.length >= 2 * mostFeet) break;
  }
  return marks;
}

/** What Order adds to the pictures. */
export const marks: Marks<OrderState, Derived> = {
  derive: (now) => {
    const { slice, frame, flat, placed, sceneBounds } = now;
    if (flat) return { three: null, shadow: null };
    const polygon = followedPolygon(now);
    return {
      three: polygon && threeWays(frame, polygon),
      shadow: slice.shadows ? shadowLayer(placed, slice.light, slice.receiver, sceneBounds.centre) : null,
    };
  },

  standing(view, now, { three, shadow }, { folds, selected }) {
    const { slice, frame } = now;
    const layers: GpuLayer[] = shadow ? [shadow] : [];
    if (view.name.startsWith('order/')) return { layers };
    if (view.name.startsWith('screen')) return {};
    const parts: Required<Pick<Drawn, 'marks' | 'words'>>[] = [];
    if (three) parts.push(polygonIn(view, frame, three, turnsOver(slice.supposed, slice.followed.kind === 'face')));
    if (slice.light.kind === 'lamp' && slice.shadows) {
      const at = view.point(slice.light.at);
      if (at)
        parts.push({
          marks: [
            {
              ink: 'path-key',
              x: at[0],
              y: at[1],
              d: 'M0 -6.5L1.8 -1.8 6.5 0 1.8 1.8 0 6.5 -1.8 1.8 -6.5 0 -1.8 -1.8Z',
            },
          ],
          words: [{ text: 'Lamp', at, ink: 'name', priority: 6 }],
        });
    }
    if (view.name === 'camera') {
      const painted = now.answer<Painted>('painted');
      if (painted && slice.paint !== 'depth' && painted.count && painted.mark === paintedMark(now))
        layers.push({
          ...{
            key: 'wrong',
            kind: 'field',
            values: painted.wrong,
            size: painted,
            steps: [0.5],
            scale: ['none', 'fault'],
          },
          ...{ opacity: 0.85, hatch: true, revision: painted.mark },
        });
      // Pairs of the lists are selected when they are chosen.
      parts.push({ marks: bodyRectangles(view, now, selected), words: [] });
      if (now.flat && folds['order-sprites'] !== false) parts.push({ marks: feetIn(view, now), words: [] });
      if (!now.flat) {
        if (three && slice.ghosts) parts.push(ghostsIn(view, three));
        if (folds['order-horizon']) parts.push(vanishingIn(view, now));
        if (slice.contours) parts.push(contoursIn(view));
      }
    }
    return { ...joined(parts), layers };
  },

  painting: (now) => paintingNow(now),

  pictures: [
    {
      ...{ name: 'angles', title: 'Equal angles', equalAngles: true, world: 'space' },
      frame: ({ frame, flat }) => (flat || frame.kind === 'orthographic' ? null : frame),
    },
  ],
};
