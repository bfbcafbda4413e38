import { tidyDegrees } from '../../core/math/angle';
import { anglesOfBasis, repairBasis } from '../../core/camera/orientation';
import { suggestedNear } from '../../core/camera/projection';
import { sub } from '../../core/math/vec3';
import type { Problem } from '../../core/reasons';
import type { Project, ProjectCamera2d, ProjectCamera3d } from '../../formats/project';
import type { Draft } from 'immer';
import { editCamera, editCamera2d } from '../state/document';

/** A proposed correction: what it is called, and what it does as one step of undo. */
export interface Mend {
  readonly label: string;
  readonly run: () => void;
}

/**
 * The smallest change that mends what is wrong with the camera, if there is one that can be made
 * for the user.
 */
export const mendOf = (problem: Problem, { camera }: Project): Mend | null =>
  camera.kind === '2d' ? mendFlat(problem, camera) : mendInSpace(problem, camera);

function mendFlat({ code }: Problem, { zoom }: ProjectCamera2d): Mend | null {
  const to = (k: number): Mend => ({
    label: `Set the zoom to ${k}`,
    run: () => editCamera2d('mend the zoom', (camera) => void (camera.zoom = k)),
  });
  return code === 'zoomNotPositive' ? to(zoom < 0 ? -zoom : 1) : to(Math.max(1e-3, Math.min(1e3, zoom)));
}

function mendInSpace({ code, path }: Problem, camera: ProjectCamera3d): Mend | null {
  const { orientation: o, projection: p } = camera;
  const mend = (label: string, recipe: (camera: Draft<ProjectCamera3d>) => void): Mend => ({
    label,
    run: () => editCamera(label.toLowerCase(), recipe),
  });
  switch (code) {
    case 'lookAtDegenerate': {
      if (o.kind !== 'lookAt') return null;
      const gaze = sub(o.target, camera.position);
      const steep = gaze[1] !== 0;
      return steep
        ? mend(`Aim by angles, pitch ${gaze[1] > 0 ? '90' : '\u221290'}°`, (c) => {
            c.orientation = { kind: 'angles', yaw: 0, pitch: gaze[1] > 0 ? 90 : -90, roll: 0 };
          })
        : mend('Look 10 ahead', (c) => {
            const [x, y, z] = c.position;
            c.orientation = { kind: 'lookAt', target: [x, y, z - 10] };
          });
    }
    case 'notOrthonormal': {
      if (o.kind !== 'basis') return null;
      const repaired = repairBasis(o);
      if (!repaired) return null;
      const { yaw, pitch, roll } = anglesOfBasis(repaired);
      return mend('Repair the basis, forward kept', (c) => {
        c.orientation = { kind: 'angles', yaw: tidyDegrees(yaw), pitch: tidyDegrees(pitch), roll: tidyDegrees(roll) };
      });
    }
    case 'nearNotPositive': {
      const near = suggestedNear(p.far);
      return mend(`Set near to ${near}`, (c) => void (c.projection.near = near));
    }
    case 'farNotBeyondNear': {
      const { near, far } = p;
      if (far === null) return null;
      return far < near && (p.kind === 'orthographic' || far > 0)
        ? mend('Exchange near and far', (c) => {
            c.projection.near = far;
            c.projection.far = near;
          })
        : mend('Put far 100 beyond near', (c) => void (c.projection.far = near + 100));
    }
    case 'fovOutOfRange':
      return mend('Set the vertical field to 60°', (c) => {
        if (c.projection.kind === 'perspective') c.projection.verticalFov = 60;
      });
    default:
  }
  if (path === 'camera.projection.height' && p.kind === 'orthographic')
    return mend('Set the height to 20', (c) => {
      if (c.projection.kind === 'orthographic') c.projection.height = 20;
    });
  if (path === 'camera.projection.aspect')
    return mend('Take the viewport’s aspect', (c) => void (c.projection.aspect = null));
  if (path === 'camera.projection')
    return mend('Set near to 0.1 and far to 1000', (c) => {
      c.projection.near = 0.1;
      c.projection.far = 1000;
    });
  return null;
}
