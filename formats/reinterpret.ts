import { readBody } from '../core/compute/read';
import { reexpressCamera, writeBody } from '../core/compute/write';
import { defaultConventions, type Conventions } from '../core/conventions/conventions';
import { expressionOf, type Expression } from '../core/conventions/express';
import { pictureToPixel, pixelToPicture, sharesOfDepth } from '../core/convert/project';
import type { Vec3 } from '../core/math/vec3';
import { coreViewport, expressCamera, keepOrientation } from './camera';
import type { Project } from './project';

const kept = expressionOf(defaultConventions);
const triple = (v: Vec3): [number, number, number] => [v[0], v[1], v[2]];

/**
 * A project whose numbers, as its present conventions write them, stay as they are and are read by other conventions: the scene moves, which is the point. For a
 * project that was entered in the wrong conventions. What was kept in the inside's axes and degrees is written out in the present conventions and read back in
 * the others. A basis that comes out mirrored is kept as it is, and explained where the camera is edited. The inverse is the same with the conventions exchanged.
 */
export function keepNumbers(project: Project, to: Conventions): Project {
  const from = expressionOf(project.conventions);
  const e = expressionOf(to);
  const move = (v: Vec3) => triple(e.fromWorld(from.toWorld(v)));
  const camera = reexpressCamera(expressCamera(project.camera, from), e, kept);
  const p = project.camera.projection;
  const angle = (degrees: number) => {
    const shown = from.toAngle((degrees * Math.PI) / 180);
    return (e.fromAngle(shown) * 180) / Math.PI;
  };
  const viewport = coreViewport(project);
  const { probe, back, ground } = project;
  return {
    ...project,
    conventions: structuredClone(to),
    camera: {
      ...project.camera,
      position: camera.position,
      orientation: keepOrientation(camera.orientation),
      projection: p.kind === 'perspective' ? { ...p, verticalFov: angle(p.verticalFov) } : p,
    },
    ground: ground && { ...ground, height: e.fromHeight(from.toHeight(ground.height)) },
    bodies: project.bodies.map((body, i) => {
      const read = readBody(writeBody(body, from) as Parameters<typeof readBody>[0], i, e);
      // Only letters and signs change: what could be read before can be read again.
      if (!read.ok) throw new Error(read.problems[0]!.message);
      const { shape, position, rotation, scale } = read.value;
      return {
        ...body,
        shape: shape as typeof body.shape,
        position: triple(position),
        rotation: [...rotation] as [number, number, number, number],
        scale: triple(scale),
        handle: move(body.handle),
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
            ? e.fromDepth(from.toDepth(sharesOfDepth(back.value))).far
            : back.value,
    },
  };
}

function pixelAgain(
  pixel: readonly [number, number],
  from: Expression,
  to: Expression,
  viewport: ReturnType<typeof coreViewport>,
): [number, number] {
  const shown = from.toScreen(viewport, ...pixelToPicture({ viewport }, pixel));
  const [x, y] = pictureToPixel({ viewport }, ...to.fromScreen(viewport, shown));
  return [x, y];
}

/** A value held at a rung, its shown numbers kept. */
function heldAgain(
  { rung, value }: Project['probe']['drive'],
  from: Expression,
  to: Expression,
  project: Project,
): [number, number, number] {
  const [a, b, depth] = value;
  switch (rung) {
    case 'local':
    case 'world':
      return triple(to.fromWorld(from.toWorld(value)));
    case 'view':
      return triple(to.fromView(from.toView(value)));
    case 'ndc': {
      const shown = from.toNdc({ across: a, upward: b, shares: sharesOfDepth(depth) });
      const { across, upward, shares } = to.fromNdc(shown);
      return [across, upward, shares.far];
    }
    case 'screen':
      return [
        ...pixelAgain([a, b], from, to, coreViewport(project)),
        to.fromDepth(from.toDepth(sharesOfDepth(depth))).far,
      ];
  }
}
