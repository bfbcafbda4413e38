import { boundingSphere, placeBodies, type PlacedBody } from '../../core/bodies/body';
import { orthographicOf } from '../../core/camera/camera2d';
import { defaultConventions } from '../../core/conventions/conventions';
import { frameOf, type CameraFrame } from '../../core/camera/frame';
import { expressionOf, type Expression } from '../../core/conventions/express';
import { chainOf, type Chain } from '../../core/convert/chain';
import { length, sub, type Vec3 } from '../../core/math/vec3';
import { castRay, type Hit } from '../../core/pick/pick';
import type { Answer, Problem } from '../../core/reasons';
import { coreViewport, projectFrame } from '../../formats/camera';
import type { Project, Tiles } from '../../formats/project';
import { pointFormOf, type PointForm } from './points';
import { rowsOf } from './tiles';

/* What follows from the document, each computed once for as long as what it follows from is the same object. */

/** Remembers the last answer; asks again when an argument is another object. */
export function memo<A extends readonly unknown[], R>(compute: (...args: A) => R): (...args: A) => R {
  let last: { args: A; result: R } | null = null;
  return (...args) => {
    if (last && args.every((arg, i) => arg === last!.args[i])) return last.result;
    last = { args, result: compute(...args) };
    return last.result;
  };
}

/** The frame that pictures are drawn with: the camera's, or the last good one with what is wrong now. */
export interface Seen {
  readonly frame: CameraFrame;
  readonly problems: readonly Problem[];
}

const fallback = (viewport: Project['viewport'], flat: boolean): CameraFrame => {
  const screen = coreViewport({ viewport });
  const made = frameOf(
    flat
      ? orthographicOf({ focus: [0, 0], anchor: [0, 0], zoom: 1, rotation: 0 }, screen)
      : {
          position: [0, 2, 10],
          orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
          projection: { kind: 'perspective', near: 0.1, far: 1000, lens: { verticalFov: 1 } },
        },
    screen,
  );
  if (!made.ok) throw new Error('the fallback camera cannot fail');
  return made.value;
};

let lastGood: { id: string; frame: CameraFrame } | null = null;
const seenOf = memo((camera: Project['camera'], viewport: Project['viewport'], id: string, e: Expression): Seen => {
  const made = projectFrame({ camera, viewport }, e);
  if (made.ok) return { frame: made.value, problems: [] };
  const frame = lastGood?.id === id ? lastGood.frame : fallback(viewport, camera.kind === '2d');
  return { frame, problems: made.problems };
});

/** What `seenOf` is told of the conventions where they play no part: always the same object. */
const anyConventions = expressionOf(defaultConventions);

const expression = memo((conventions: Project['conventions']): Expression => expressionOf(conventions));

const placed = memo((bodies: Project['bodies']): ReadonlyMap<string, PlacedBody> => {
  const made = placeBodies(bodies);
  // A document is checked when it is read; nothing in it can come loose afterwards.
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return new Map(made.placed.map((one) => [one.body.id, one]));
});

const chain = memo((frame: CameraFrame, drive: Project['probe']['drive'], body: PlacedBody | null): Answer<Chain> =>
  chainOf(frame, body, drive),
);

/** The id of a body's outermost ancestor: what it is a part of. */
const roots = memo((bodies: Project['bodies']): ReadonlyMap<string, string> => {
  const parents = new Map(bodies.map(({ id, parent }) => [id, parent]));
  const rootOf = (id: string): string => {
    const parent = parents.get(id);
    return parent ? rootOf(parent) : id;
  };
  return new Map(bodies.map(({ id }) => [id, rootOf(id)]));
});

/** What stands between the eye and the probe, if the probe is in view: the nearest surface of a body it is no part of. */
const occluder = memo(
  (
    frame: CameraFrame,
    probe: Answer<Chain>,
    bodies: ReadonlyMap<string, PlacedBody>,
    family: ReadonlyMap<string, string>,
    own: string | null,
  ): Hit | null => {
    if (!probe.ok || probe.value.outside.length) return null;
    const { world, parts } = probe.value;
    const origin =
      frame.kind === 'perspective'
        ? frame.eye
        : sub(world, [frame.forward[0] * parts[2], frame.forward[1] * parts[2], frame.forward[2] * parts[2]]);
    const way = sub(world, origin);
    const range = length(way);
    if (range === 0) return null;
    const direction = [way[0] / range, way[1] / range, way[2] / range] as const;
    const perAhead = range / parts[2];
    const others = [...bodies.values()].filter(({ body }) => own === null || family.get(body.id) !== family.get(own));
    return (
      castRay({ origin, direction }, others, { from: frame.near * perAhead, to: range * (1 - 1e-6) - 1e-9 })[0] ?? null
    );
  },
);

/** A sphere round everything: how large the world is. */
const extent = memo((bodies: ReadonlyMap<string, PlacedBody>, tiles: Tiles | null) => {
  let [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  for (const one of bodies.values()) {
    const { centre, radius } = boundingSphere(one);
    low = low.map((v, i) => Math.min(v, centre[i]! - radius));
    high = high.map((v, i) => Math.max(v, centre[i]! + radius));
  }
  if (tiles) {
    const { corner, size, columns } = tiles;
    low = [...corner.map((v, i) => Math.min(v, low[i]!)), Math.min(0, low[2]!)];
    high = [corner[0] + columns * size, corner[1] + rowsOf(tiles) * size, 0].map((v, i) => Math.max(v, high[i]!));
  }
  if (!bodies.size && !tiles) return { centre: [0, 0, 0] as const, half: [50, 50, 50] as const, radius: 50 };
  const centre = low.map((v, i) => (v + high[i]!) / 2) as unknown as readonly [number, number, number];
  const half = low.map((v, i) => (high[i]! - v) / 2) as unknown as readonly [number, number, number];
  return { centre, half, radius: Math.max(1, Math.hypot(...high.map((v, i) => v - centre[i]!))) };
});

const pointForm = memo(pointFormOf);

export interface Situation {
  readonly project: Project;
  /** Whether the world is a plane, seen by a 2D camera. */
  readonly flat: boolean;
  readonly points: PointForm;
  readonly seen: Seen;
  readonly frame: CameraFrame;
  readonly expression: Expression;
  readonly placed: ReadonlyMap<string, PlacedBody>;
  readonly roots: ReadonlyMap<string, string>;
  readonly chain: Answer<Chain>;
  readonly occluder: Hit | null;
  readonly extent: { readonly centre: Vec3; readonly half: Vec3; readonly radius: number };
}

/** Remembers the answer for every object that was asked about, for as long as there is that object. */
function remembered<K extends object, R>(compute: (key: K) => R): (key: K) => R {
  const answers = new WeakMap<K, R>();
  return (key) => {
    if (!answers.has(key)) answers.set(key, compute(key));
    return answers.get(key)!;
  };
}

const seenFirst = remembered((project: Project): Seen => {
  const { camera, conventions, viewport, id } = project;
  // Only a camera that snaps asks which way the screen counts.
  const snaps = camera.kind === '2d' && camera.snap !== 'none';
  return seenOf(camera, viewport, id, snaps ? expression(conventions) : anyConventions);
});

/** What the camera of a project sees: without the rest where that is all that is asked. */
export function seenIn(project: Project): Seen {
  const seen = seenFirst(project);
  // The last that could be is the last that was looked at: an undo goes back to one that is remembered.
  if (!seen.problems.length) lastGood = { id: project.id, frame: seen.frame };
  return seen;
}

/** Everything that a picture or a sheet is made from, for a project seen by a frame. */
export const situationSeen = memo((project: Project, seen: Seen): Situation => {
  const flat = project.camera.kind === '2d';
  const e = expression(project.conventions);
  const bodies = placed(project.bodies);
  const family = roots(project.bodies);
  const own = project.probe.body;
  const probe = chain(seen.frame, project.probe.drive, own === null ? null : (bodies.get(own) ?? null));
  return {
    project,
    seen,
    frame: seen.frame,
    expression: e,
    flat,
    points: pointForm(e, flat),
    placed: bodies,
    roots: family,
    chain: probe,
    // A ray through all bodies: cast when somebody asks.
    get occluder() {
      return flat ? null : occluder(seen.frame, probe, bodies, family, own);
    },
    extent: extent(bodies, project.tiles),
  };
});

const situations = remembered((project: Project): Situation => situationSeen(project, seenIn(project)));
/** The same for as long as the project is the same: what stands still and what moves ask of different states in turn. */
export function situationOf(project: Project): Situation {
  seenIn(project);
  return situations(project);
}
