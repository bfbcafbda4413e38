import { useShallow } from 'zustand/react/shallow';
import { boundingSphere, placeBodies, type PlacedBody } from '../../core/bodies/body';
import { frameOf, type CameraFrame } from '../../core/camera/frame';
import { expressionOf, type Expression } from '../../core/conventions/express';
import { chainOf, type Chain } from '../../core/convert/chain';
import { length, sub } from '../../core/math/vec3';
import { castRay, type Hit } from '../../core/pick/pick';
import type { Answer, Problem } from '../../core/reasons';
import { coreCamera, coreViewport } from '../../formats/camera';
import type { Project } from '../../formats/project';
import { useDocument } from './document';

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

const fallback = (viewport: Project['viewport']): CameraFrame => {
  const made = frameOf(
    {
      position: [0, 2, 10],
      orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
      projection: { kind: 'perspective', near: 0.1, far: 1000, lens: { verticalFov: 1 } },
    },
    coreViewport({ viewport }),
  );
  if (!made.ok) throw new Error('the fallback camera cannot fail');
  return made.value;
};

let lastGood: { id: string; frame: CameraFrame } | null = null;
const seenOf = memo((camera: Project['camera'], viewport: Project['viewport'], id: string): Seen => {
  const made = frameOf(coreCamera(camera), coreViewport({ viewport }));
  if (made.ok) {
    lastGood = { id, frame: made.value };
    return { frame: made.value, problems: [] };
  }
  const frame = lastGood?.id === id ? lastGood.frame : fallback(viewport);
  return { frame, problems: made.problems };
});

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
const extent = memo((bodies: ReadonlyMap<string, PlacedBody>) => {
  let [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  for (const one of bodies.values()) {
    const { centre, radius } = boundingSphere(one);
    low = low.map((v, i) => Math.min(v, centre[i]! - radius));
    high = high.map((v, i) => Math.max(v, centre[i]! + radius));
  }
  if (!bodies.size) return { centre: [0, 0, 0] as const, radius: 50 };
  const centre = low.map((v, i) => (v + high[i]!) / 2) as unknown as readonly [number, number, number];
  return { centre, radius: Math.max(1, Math.hypot(...high.map((v, i) => v - centre[i]!))) };
});

export interface Situation {
  readonly project: Project;
  readonly seen: Seen;
  readonly frame: CameraFrame;
  readonly expression: Expression;
  readonly placed: ReadonlyMap<string, PlacedBody>;
  readonly roots: ReadonlyMap<string, string>;
  readonly chain: Answer<Chain>;
  readonly occluder: Hit | null;
  readonly extent: { readonly centre: readonly [number, number, number]; readonly radius: number };
}

/** Everything that a picture or a sheet is made from, for a project. */
export const situationOf = memo((project: Project): Situation => {
  const seen = seenOf(project.camera, project.viewport, project.id);
  const bodies = placed(project.bodies);
  const family = roots(project.bodies);
  const own = project.probe.body;
  const probe = chain(seen.frame, project.probe.drive, own === null ? null : (bodies.get(own) ?? null));
  return {
    project,
    seen,
    frame: seen.frame,
    expression: expression(project.conventions),
    placed: bodies,
    roots: family,
    chain: probe,
    occluder: occluder(seen.frame, probe, bodies, family, own),
    extent: extent(bodies),
  };
});

/** The situation of the open project, for components below a page that has one. */
export function useSituation(): Situation {
  const project = useDocument((state) => state.project);
  if (!project) throw new Error('no project is open');
  return situationOf(project);
}

export function currentSituation(): Situation {
  const { project } = useDocument.getState();
  if (!project) throw new Error('no project is open');
  return situationOf(project);
}

/**
 * A few values of the situation, flat in one object: the component is rendered anew only when one of them is another. For what does not change
 * while the camera is moved.
 */
export function usePart<Part extends object>(select: (situation: Situation) => Part): Part {
  return useDocument(
    useShallow(({ project }) => {
      if (!project) throw new Error('no project is open');
      return select(situationOf(project));
    }),
  );
}
