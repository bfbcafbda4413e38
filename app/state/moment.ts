import { largest } from '../../core/quantities/numbers';
import { boundingSphere, footOf, placeBodies, rootsOf, type PlacedBody } from '../../core/bodies/body';
import { orthographicOf } from '../../core/camera/camera2d';
import { defaultConventions } from '../../core/conventions/conventions';
import { frameOf, type CameraFrame } from '../../core/camera/frame';
import { codecOf, type ConventionCodec } from '../../core/conventions/codec';
import { chainOf, type Chain } from '../../core/convert/chain';
import { length, sub, type Vec3 } from '../../core/math/vec3';
import { castRay, type Hit } from '../../core/pick/pick';
import type { Answer, Problem } from '../../core/reasons';
import { placedAt, type MovingBody } from '../../core/motion/bodies';
import { worldOf, type World } from '../../core/quantities/world';
import { coreMotion, coreViewport, projectFrame } from '../../formats/camera';
import type { Project, ProjectBody, Tiles } from '../../formats/project';
import { bodiesOf } from './bodyList';
import type { Journey } from './journey';
import { memo, remembered } from './memo';
import { pointFormOf, type PointForm } from './points';
import { rowsOf } from './tileRows';

/*
 * What follows from the document, each computed once for as long as what it follows from is the
 * same object.
 */

/**
 * The frame that pictures are drawn with: the camera's, or the last good one with what is wrong
 * now.
 */
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
const seenOf = memo(
  (camera: Project['camera'], viewport: Project['viewport'], id: string, e: ConventionCodec): Seen => {
    const made = projectFrame({ camera, viewport }, e);
    if (made.ok) return { frame: made.value, problems: [] };
    const frame = lastGood?.id === id ? lastGood.frame : fallback(viewport, camera.kind === '2d');
    return { frame, problems: made.problems };
  },
);

/** What `seenOf` is told of the conventions where they play no part: always the same object. */
const anyConventions = codecOf(defaultConventions);

const codec = memo((conventions: Project['conventions']): ConventionCodec => codecOf(conventions));

const placed = memo((bodies: Project['bodies']): ReadonlyMap<string, PlacedBody> => {
  const made = placeBodies(bodies);
  // A document is checked when it is read; nothing in it can come loose afterwards.
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return new Map(made.placed.map((one) => [one.body.id, one]));
});

const chain = memo((frame: CameraFrame, drive: Project['probe']['drive'], body: PlacedBody | null): Answer<Chain> =>
  chainOf(frame, body, drive),
);

/** What every body is a part of. */
const roots = memo(rootsOf);

/**
 * What stands between the eye and the probe, if the probe is in view: the nearest surface of a body
 * it is no part of.
 */
const occluder = memo(
  (
    frame: CameraFrame,
    probe: Answer<Chain>,
    bodies: ReadonlyMap<string, PlacedBody>,
    family: ReadonlyMap<string, string>,
    own: string | null,
  ): Hit | null => {
    if (!probe.ok || probe.value.outside.length) return null;
    const { world, viewRuf } = probe.value;
    const origin =
      frame.kind === 'perspective'
        ? frame.eye
        : sub(world, [frame.forward[0] * viewRuf[2], frame.forward[1] * viewRuf[2], frame.forward[2] * viewRuf[2]]);
    const way = sub(world, origin);
    const range = length(way);
    if (range === 0) return null;
    const direction = [way[0] / range, way[1] / range, way[2] / range] as const;
    const perAhead = range / viewRuf[2];
    const others = [...bodies.values()].filter(({ body }) => own === null || family.get(body.id) !== family.get(own));
    return (
      castRay({ origin, direction }, others, { from: frame.near * perAhead, to: range * (1 - 1e-6) - 1e-9 })[0] ?? null
    );
  },
);

/** A sphere round everything: how large the world is. */
const boundsOf = memo((bodies: ReadonlyMap<string, PlacedBody>, tiles: Tiles | null) => {
  let [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  for (const one of bodies.values()) {
    const { centre, radius } = boundingSphere(one);
    // Scales on one another may carry a body beyond what any picture could show.
    for (let i = 0; i < 3; i++) {
      low[i] = Math.min(low[i]!, Math.max(-largest, centre[i]! - radius || 0));
      high[i] = Math.max(high[i]!, Math.min(largest, centre[i]! + radius || 0));
    }
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

/** A kept body as the core moves it. */
const moving = remembered((body: ProjectBody): MovingBody => ({
  ...body,
  motion: body.motion && coreMotion(body.motion),
}));
const movingBodies = memo((bodies: Project['bodies']): readonly MovingBody[] => bodies.map(moving));

const placedThen = memo((bodies: Project['bodies'], time: number) =>
  placedAt(movingBodies(bodies), placed(bodies), time),
);

/**
 * Where bodies stand at a time, flat: twelve numbers a body, the rows of its 3×4 matrix to
 * canonical world space. Apart from the bodies, so that they can move. Another revision says that
 * some are others.
 */
export interface Poses {
  readonly ids: readonly string[];
  readonly values: Float64Array;
  /** For each body how many are covered by it, in a 2D world that is sorted by feet. */
  readonly ranks?: Int32Array;
  readonly revision: number;
}
let lastRevision = 0;
const posesOf = remembered((bodies: ReadonlyMap<string, PlacedBody>): Poses => {
  const values = new Float64Array(12 * bodies.size);
  let at = 0;
  for (const { toWorld } of bodies.values()) for (let i = 0; i < 12; i++) values[at++] = toWorld[i]!;
  return { ids: [...bodies.keys()], values, revision: ++lastRevision };
});

/** Bodies from the highest feet to the lowest. */
const byFeet = remembered((bodies: ReadonlyMap<string, PlacedBody>): readonly PlacedBody[] =>
  // Sorting is stable: equal feet stay in the order of the list.
  [...bodies.values()].sort((a, b) => footOf(b)[1] - footOf(a)[1]),
);
const posesByFeet = remembered((bodies: ReadonlyMap<string, PlacedBody>): Poses => {
  const rankById = new Map(byFeet(bodies).map(({ body }, rank) => [body.id, rank]));
  return { ...posesOf(bodies), ranks: Int32Array.from(bodies.keys(), (id) => rankById.get(id)!) };
});

const pointForm = memo(pointFormOf);

/** What a task may do to the camera and the bodies at a time: null where it leaves them alone. */
export interface Moved {
  readonly frame?: CameraFrame;
  readonly placed?: Moment['placed'];
  /** Where the camera goes as time passes, and what stages of a frame have of it that run too early. */
  readonly journey?: Journey | null;
  readonly stale?: Moment['stale'];
}
export type Mover = (rest: Moment) => Moved | null;
let movers: readonly Mover[] = [];
/** Has the tasks that move things asked from now on: once, when page or worker begins. */
export const installMovers = (list: readonly Mover[]): void => void (movers = list);

/**
 * All that the pictures and sheets are made from: a project at a time. What follows from it is
 * worked out once, however many ask.
 */
export interface Moment<S = undefined> {
  readonly project: Project;
  /** What the task that asks keeps in the project. */
  readonly slice: S;
  /** Seconds, from the clock; never in the document. */
  readonly time: number;
  /** Whether the world is a plane, seen by a 2D camera. */
  readonly flat: boolean;
  /** What points are made of, and which surface bodies stand on. */
  readonly world: World;
  readonly points: PointForm;
  readonly seen: Seen;
  /** The document's camera, and the one that is shown now. */
  readonly rest: CameraFrame;
  readonly frame: CameraFrame;
  readonly codec: ConventionCodec;
  /** Where the camera goes as time passes; null for one that stands. */
  readonly journey: Journey | null;
  /**
   * The camera as stages of a frame have it that run before it has moved, by the stage; a stage that
   * is not named has the one that is shown.
   */
  readonly stale: Readonly<Record<string, CameraFrame>>;
  /** The bodies as they stand now, and the same flat. */
  readonly placed: ReadonlyMap<string, PlacedBody>;
  readonly poses: Poses;
  /** The bodies of a 2D world, each before those that cover it. */
  readonly stack: readonly PlacedBody[];
  /** By the id of a body, that of its outermost ancestor. */
  readonly roots: ReadonlyMap<string, string>;
  readonly chain: Answer<Chain>;
  readonly occluder: Hit | null;
  /** Of the document at rest, so that nothing jumps while things move. */
  readonly sceneBounds: { readonly centre: Vec3; readonly half: Vec3; readonly radius: number };
  /** What a job of the task has last found; undefined before it has. */
  answer<T>(job: string): T | undefined;
}

const seenFirst = remembered((project: Project): Seen => {
  const { camera, conventions, viewport, id } = project;
  // Only a camera that snaps asks which way the screen counts.
  const snaps = camera.kind === '2d' && camera.snap !== 'none';
  return seenOf(camera, viewport, id, snaps ? codec(conventions) : anyConventions);
});

/** What the camera of a project sees: without the rest where that is all that is asked. */
export function seenIn(project: Project): Seen {
  const seen = seenFirst(project);
  // The last that could be is the last that was looked at: an undo goes back to one that is
  // remembered.
  if (!seen.problems.length) lastGood = { id: project.id, frame: seen.frame };
  return seen;
}

const nothingStale = {};

/** A project seen by a frame at a time. */
export const momentSeen = memo((project: Project, seen: Seen, time: number): Moment => {
  const flat = project.camera.kind === '2d';
  const isByFeet = flat && project.bodyOrder === 'feet';
  const world = worldOf(project.camera.kind);
  const e = codec(project.conventions);
  const family = roots(project.bodies);
  const own = project.probe.body;
  const build = (
    frame: CameraFrame,
    bodies: ReadonlyMap<string, PlacedBody>,
    { journey, stale }: Pick<Moment, 'journey' | 'stale'>,
  ): Moment => {
    const probe = chain(frame, project.probe.drive, own === null ? null : (bodies.get(own) ?? null));
    return {
      ...{ project, slice: undefined, time, seen, rest: seen.frame, frame, codec: e, flat, journey, stale },
      world,
      points: pointForm(e, flat),
      placed: bodies,
      get poses() {
        return isByFeet ? posesByFeet(bodies) : posesOf(bodies);
      },
      get stack() {
        return isByFeet ? byFeet(bodies) : bodiesOf({ placed: bodies });
      },
      roots: family,
      chain: probe,
      // A ray through all bodies: cast when somebody asks.
      get occluder() {
        return flat ? null : occluder(frame, probe, bodies, family, own);
      },
      sceneBounds: boundsOf(placed(project.bodies), project.tiles),
      answer: () => undefined,
    };
  };
  let now = build(seen.frame, placedThen(project.bodies, time), { journey: null, stale: nothingStale });
  for (const move of movers) {
    const moved = move(now);
    if (moved)
      now = build(moved.frame ?? now.frame, moved.placed ?? now.placed, {
        journey: moved.journey ?? now.journey,
        stale: moved.stale ?? now.stale,
      });
  }
  return now;
});

const moments = remembered((project: Project) => memo((time: number) => momentSeen(project, seenIn(project), time)));

/** A project at a time: the same object for as long as both are the same. */
export function momentOf(project: Project, time = 0): Moment {
  seenIn(project);
  return moments(project)(time);
}

/** By what a job's answer is known: tasks may call their jobs alike. */
export const answerKey = (task: string, job: string): string => `${task}\n${job}`;

const withSlice = memo(
  <S>(now: Moment, slice: S, answers: Readonly<Record<string, unknown>>, task: string): Moment<S> =>
    // The moment beneath goes on answering, its late answers included.
    Object.create(now, {
      slice: { value: slice, enumerable: true },
      answer: { value: (job: string) => answers[answerKey(task, job)] },
    }) as Moment<S>,
);

/** A moment as a task sees it: with what it keeps in the project, and what its jobs have found. */
export const momentWith = <S>(
  now: Moment,
  slice: S,
  answers: Readonly<Record<string, unknown>>,
  task: string,
): Moment<S> => withSlice(now, slice, answers, task) as Moment<S>;
