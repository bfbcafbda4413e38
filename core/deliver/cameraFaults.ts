import type { CameraFrame } from '../camera/frame';
import { projectPoint, viewRufToWorld, type Depth01 } from '../convert/project';
import { lensFaults, pointFaults, poseFaults, type FaultName, type MatrixName } from '../diagnose/faults';
import type { Given, Instance } from '../diagnose/given';
import { invert4 } from '../math/invert';
import type { Intended } from '../diagnose/engine';
import { fixText } from '../diagnose/mends';
import { Engine, instancesFor } from '../diagnose/search';
import { identity, transform, type Mat4 } from '../math/mat4';
import { normalize, sub, type Vec2, type Vec3 } from '../math/vec3';
import { answer3d, type VectorContext } from './vectorAnswers';
import type { FaultWay } from './faultWay';
import { visibleGround } from './visibleGround';
import type { VectorKind } from './vectorKinds';

/*
 * Faults of the camera (`diagnose`) as they show in every function that an engine makes of it: matrices, points, the
 * way back by the inverse of its view projection, and functions of its axes and lens.
 */

/** Kinds that are made of the matrices alone. */
const chainKinds: readonly VectorKind[] = ['view', 'projection', 'viewProjection', 'cameraToWorld', 'worldToScreen', 'screenToWorld', 'ray']; // prettier-ignore

/** Things that `diagnose` would be given by an engine that answers every row. */
const everything: Given = {
  matrices: { view: identity, projection: identity, viewProjection: identity, cameraToWorld: identity },
  points: [{ world: [0, 0, 0], screen: [0, 0], depth: 0 }],
  digits: 6,
};

/** The place of NDC in the world, by an inverse of a view projection. */
const unprojected = (inverse: Mat4, [x, y, z]: Vec3): Vec3 => {
  const [a, b, c, w] = transform(inverse, [x, y, z, 1]);
  return [a / w, b / w, c / w];
};

/** The axes and the lens that an engine with a fault has, for functions that use them; the right frame for other faults. */
function faultyFrame({ frame, codec }: VectorContext, engine: Engine, one: Instance): CameraFrame {
  const isPose = (poseFaults as readonly string[]).includes(one.fault);
  const isLens = (lensFaults as readonly string[]).includes(one.fault);
  if (isPose && one.place === 'view') {
    const [view] = engine.matrix('view', [one]);
    const own = view && codec.fromViewMatrix(view);
    const back = own && invert4(own);
    if (!own || !back) return frame;
    const row = (r: number): Vec3 => [own[4 * r]!, own[4 * r + 1]!, own[4 * r + 2]!];
    return { ...frame, right: row(0), up: row(1), forward: row(2), eye: [back[3]!, back[7]!, back[11]!] };
  }
  if (isLens) {
    const [projection] = engine.matrix('projection', [one]);
    if (!projection) return frame;
    const own = codec.fromProjection(projection);
    const isPerspective = frame.kind === 'perspective';
    const k = isPerspective ? frame.near : 1;
    const [w, h] = [k / own[0]!, k / own[5]!];
    const [sx, sy] = isPerspective ? [-own[2]!, -own[6]!] : [-own[3]!, -own[7]!];
    return { ...frame, extents: { left: (sx - 1) * w, right: (sx + 1) * w, bottom: (sy - 1) * h, top: (sy + 1) * h } };
  }
  return frame;
}

/** Returns every way of committing each fault that `diagnose` knows and that this camera can have. */
export function cameraFaultWays(intended: Intended, context: VectorContext): readonly FaultWay<FaultName>[] {
  const engine = new Engine(intended, []);
  const { frame, codec } = context;
  const [whole] = engine.matrix('viewProjection', []);
  const rightInverse = invert4(whole!);
  const ndcAt = ([x, y]: Vec2, depth01: Depth01): Vec3 => {
    const [across, upward] = codec.fromScreen(frame.viewport, [x, y]);
    return codec.toNdc({ across, upward, depth01 });
  };
  const wayOf = (one: Instance): FaultWay<FaultName> => {
    const isOfPoints = one.place === 'points' || (pointFaults as readonly string[]).includes(one.fault);
    const [viewProjection] = isOfPoints ? [] : engine.matrix('viewProjection', [one]);
    const inverse = isOfPoints ? rightInverse : viewProjection && invert4(viewProjection);
    const frameOfIt = isOfPoints ? frame : faultyFrame(context, engine, one);
    let faulty: VectorContext | null = frameOfIt === frame ? context : null;
    const toScreen = engine.comesTo([one]);
    const listed = new Map<string, readonly number[] | null>();
    const matrixOf = (kind: MatrixName) => {
      if (!listed.has(kind)) {
        const [made] = engine.matrix(kind, [one]);
        listed.set(kind, made ? codec.toList(made) : null);
      }
      return listed.get(kind)!;
    };
    const [own] = one.place === 'view' ? engine.matrix('cameraToWorld', [one]) : [];
    const ownEye = own && [own[3]!, own[7]!, own[11]!];
    const back = (kind: VectorKind, [x, y, ahead]: readonly number[]): readonly number[] | null => {
      if (!inverse || !rightInverse) return null;
      const at = (depth: Depth01) => unprojected(inverse, ndcAt([x!, y!], depth));
      if (kind === 'screenToWorld') {
        const { picture } = projectPoint(frame, viewRufToWorld(frame, [0, 0, ahead!]));
        return picture.ok ? at(picture.value.depth01) : null;
      }
      const right = answer3d(context, 'ray', [x!, y!]);
      if (!right) return null;
      const direction = normalize(sub(at({ near: 0.25, far: 0.75 }), at({ near: 0.75, far: 0.25 })));
      if (!direction || frame.kind === 'perspective') {
        return direction && [...(ownEye ?? right.slice(0, 3)), ...direction];
      }
      // The origin of a parallel ray is off by as much as the points that it passes through.
      const middle = { near: 0.5, far: 0.5 };
      const off = sub(at(middle), unprojected(rightInverse, ndcAt([x!, y!], middle)));
      return [...right.slice(0, 3).map((v, i) => v + off[i]!), ...direction];
    };
    return {
      name: one.fault as FaultName,
      isOfCamera: true,
      fix: fixText(one.fault, codec),
      kinds: isOfPoints ? ['worldToScreen'] : faulty ? chainKinds : undefined,
      answer: (kind, input) => {
        switch (kind) {
          case 'view':
          case 'projection':
          case 'viewProjection':
          case 'cameraToWorld':
            return matrixOf(kind);
          case 'worldToScreen': {
            const right = answer3d(context, kind, input);
            if (!right) return null;
            const printed = toScreen({ world: input as unknown as Vec3, screen: [0, 0], depth: null });
            return printed ? [...printed.screen, printed.depth] : null;
          }
          case 'screenToWorld':
          case 'ray':
            return back(kind, input);
          default:
            faulty ??= { ...context, frame: frameOfIt, ground: visibleGround(frameOfIt, codec) };
            return answer3d(faulty, kind, input);
        }
      },
    };
  };
  return instancesFor(intended, everything, []).flatMap((one) => (one.fault === 'otherCamera' ? [] : [wayOf(one)]));
}
