import type { Project } from '../../../formats/project';
import { momentOf } from '../../state/moment';
import { faceStride, Scene, transformStride } from './scene';

/* Helpers of the tests of scenes. */

/** A scene of a project at a time, as the composer creates it. */
export function sceneOf(project: Project, time = 0, scene = new Scene()): Scene {
  const { roots, sceneBounds, flat, poses } = momentOf(project, time);
  scene.take(project.bodies, roots, sceneBounds.centre, flat, null);
  scene.pose(poses);
  return scene;
}
/** A vertex of the faces in the scene, as the shader places it. */
export function vertexAt({ faces, transforms }: Scene, i: number): [number, number, number] {
  const f = faces.subarray(i * faceStride, (i + 1) * faceStride);
  const t = transforms.subarray(f[8]! * transformStride, (f[8]! + 1) * transformStride);
  const row = (k: number) => t[4 * k]! * f[0]! + t[4 * k + 1]! * f[1]! + t[4 * k + 2]! * f[2]! + t[4 * k + 3]!;
  return [row(0), row(1), t[12] ? t[13]! : row(2)];
}
