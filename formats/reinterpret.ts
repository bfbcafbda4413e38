import { readBody } from '../core/request/readBody';
import { reexpressCamera, reexpressCamera2d, writeBody } from '../core/request/write';
import { degrees, radians } from '../core/math/angle';
import { plane, space } from '../core/quantities/world';
import { defaultConventions, type Conventions } from '../core/conventions/conventions';
import { codecOf, type ConventionCodec } from '../core/conventions/codec';
import { pictureToPixel, pixelToPicture, depth01Of } from '../core/convert/project';
import { cross, dot, type Vec3 } from '../core/math/vec3';
import { coreViewport, expressCamera, expressCamera2d, keepOrientation } from './camera';
import type { BodyMotionKept, Project, ProjectCamera, Tiles } from './project';

const kept = codecOf(defaultConventions);
const triple = (v: Vec3): [number, number, number] => [v[0], v[1], v[2]];

/**
 * A project whose numbers, as its present conventions write them, stay as they are and are read by
 * other conventions: the scene moves, which is the point. For a project that was entered in the
 * wrong conventions. What was kept in the canonical axes and degrees is written out in the present
 * conventions and read back in the others. A basis that comes out mirrored is kept as it is, and
 * explained where the camera is edited. The inverse is the same with the conventions exchanged.
 */
export function keepNumbers(project: Project, to: Conventions): Project {
  const from = codecOf(project.conventions);
  const e = codecOf(to);
  const world = project.camera.kind === '2d' ? plane : space;
  const move = (v: Vec3) => triple(e.fromWorld(from.toWorld(v)));
  const viewport = coreViewport(project);
  const { probe, back, ground, tiles } = project;
  return {
    ...project,
    conventions: structuredClone(to),
    camera: cameraAgain(project.camera, from, e, viewport),
    cameras: project.cameras.map((camera) => cameraAgain(camera, from, e, viewport)),
    snapshots: project.snapshots.map((one) => ({
      ...one,
      camera: cameraAgain(one.camera, from, e, coreViewport(one)),
    })),
    tiles: tiles && { ...tiles, ...mapAgain(tiles, from, e) },
    ground: ground && { ...ground, height: e.fromHeight(from.toHeight(ground.height)) },
    bodies: project.bodies.map((body, i) => {
      const read = readBody(writeBody(body, { codec: from, world }), i, { codec: e, world });
      // Only letters and signs change: what could be read before can be read again.
      if (!read.ok) throw new Error(read.problems[0]!.message);
      const { shape, position, rotation, scale, foot } = read.value;
      return {
        ...body,
        shape: shape as typeof body.shape,
        position: triple(position),
        rotation: [...rotation] as [number, number, number, number],
        scale: triple(scale),
        handle: move(body.handle),
        ...(foot && { foot: triple(foot) }),
        motion: body.motion && motionAgain(body.motion, move),
      };
    }),
    probe: { ...probe, drive: { ...probe.drive, value: heldAgain(probe.drive, from, e, project) } },
    back: {
      ...back,
      pixel: pixelAgain(back.pixel, from, e, viewport),
      value:
        back.route === 'plane'
          ? e.fromHeight(from.toHeight(back.value))
          : back.route === 'depth'
            ? e.fromDepth(from.toDepth(depth01Of(back.value))).far
            : back.value,
    },
  };
}

function cameraAgain(
  camera: ProjectCamera,
  from: ConventionCodec,
  to: ConventionCodec,
  viewport: ReturnType<typeof coreViewport>,
): ProjectCamera {
  if (camera.kind === '2d')
    return { ...camera, ...reexpressCamera2d(expressCamera2d(camera, viewport, from), viewport, to, kept) };
  const p = camera.projection;
  const { position, orientation } = reexpressCamera(expressCamera(camera, from), to, kept);
  const reread = (angle: number) => degrees(to.fromAngle(from.toAngle(radians(angle))));
  return {
    ...camera,
    position,
    orientation: keepOrientation(orientation),
    projection: p.kind === 'perspective' ? { ...p, verticalFov: reread(p.verticalFov) } : p,
  };
}

/**
 * A motion in the moved space. An axis of turning is no arrow: where the move mirrors space, the
 * same turn is about the moved axis the other way round.
 */
function motionAgain(motion: BodyMotionKept, move: (v: Vec3) => [number, number, number]): BodyMotionKept {
  const [x, y, z] = [move([1, 0, 0]), move([0, 1, 0]), move([0, 0, 1])];
  const mirrored = dot(x, cross(y, z)) < 0;
  const turned = (axis: Vec3) => move(axis).map((v) => (mirrored ? -v : v) || 0) as [number, number, number];
  switch (motion.kind) {
    case 'drift':
      return { ...motion, velocity: move(motion.velocity), axis: turned(motion.axis) };
    case 'orbit':
      return { ...motion, centre: move(motion.centre), axis: turned(motion.axis) };
    case 'shuttle':
      return { ...motion, to: move(motion.to) };
    case 'swing':
      return { ...motion, pivot: move(motion.pivot), axis: turned(motion.axis) };
    case 'path':
      return {
        ...motion,
        keys: motion.keys.map(({ time, place }) => ({ time, place: move(place) })),
        axis: turned(motion.axis),
      };
  }
}

/**
 * A tile map whose corners keep their numbers: where an axis turns round, so does the order of its
 * tiles.
 */
function mapAgain(
  { corner, size, columns, values }: Tiles,
  from: ConventionCodec,
  to: ConventionCodec,
): Pick<Tiles, 'corner' | 'values'> {
  const rows = values.length / columns;
  const again = ([right, up]: readonly [number, number]) => to.fromPair('up', from.toPair('up', [right, up]));
  const [a, b] = [again(corner), again([corner[0] + columns * size, corner[1] + rows * size])];
  const [mirrored, upended] = [a[0] > b[0], a[1] > b[1]];
  return {
    corner: [Math.min(a[0], b[0]), Math.min(a[1], b[1])],
    values: values.map((_, i) => {
      const [column, row] = [i % columns, Math.floor(i / columns)];
      return values[(upended ? rows - 1 - row : row) * columns + (mirrored ? columns - 1 - column : column)]!;
    }),
  };
}

function pixelAgain(
  pixel: readonly [number, number],
  from: ConventionCodec,
  to: ConventionCodec,
  viewport: ReturnType<typeof coreViewport>,
): [number, number] {
  const shown = from.toScreen(viewport, ...pixelToPicture({ viewport }, pixel));
  const [x, y] = pictureToPixel({ viewport }, ...to.fromScreen(viewport, shown));
  return [x, y];
}

/** A value held at a rung, its shown numbers kept. */
function heldAgain(
  { rung, value }: Project['probe']['drive'],
  from: ConventionCodec,
  to: ConventionCodec,
  project: Project,
): [number, number, number] {
  const [a, b, depth] = value;
  const world = project.camera.kind === '2d' ? plane : space;
  switch (rung) {
    case 'local':
    case 'world':
      return world.readPoint(world.writePoint(value, from), to);
    case 'view':
      return triple(to.fromView(from.toView(value)));
    case 'clip': {
      const p = project.camera.kind === '3d' ? project.camera.projection : null;
      // In perspective the third is w, which no convention turns; in orthographic it stands for z,
      // as evenly spread as depth.
      const even = p?.kind === 'orthographic' ? p : null;
      const share = even ? (depth - even.near) / (even.far - even.near) : 0;
      const { across, upward, depth01 } = to.fromNdc(from.toNdc({ across: a, upward: b, depth01: depth01Of(share) }));
      return [across, upward, even ? even.near + depth01.far * (even.far - even.near) : depth];
    }
    case 'ndc': {
      const shown = from.toNdc({ across: a, upward: b, depth01: depth01Of(depth) });
      const { across, upward, depth01 } = to.fromNdc(shown);
      return [across, upward, depth01.far];
    }
    case 'screen':
      return [...pixelAgain([a, b], from, to, coreViewport(project)), to.fromDepth(from.toDepth(depth01Of(depth))).far];
  }
}
