import type { CameraFrame } from '../../../core/camera/frame';
import { codecOf } from '../../../core/conventions/codec';
import { projectFrame } from '../../../formats/camera';
import type { Project, ProjectCamera } from '../../../formats/project';
import { memo, remembered } from '../../state/memo';
import type { Moment } from '../../state/moment';

/* The cameras that are not looked through, small in the drawings. */

const codec = remembered(codecOf);
const frames = remembered((camera: ProjectCamera) =>
  memo((viewport: Project['viewport'], conventions: Project['conventions']): CameraFrame | null => {
    const made = projectFrame({ camera, viewport }, codec(conventions));
    return made.ok ? made.value : null;
  }),
);

/** The frame of a camera of a project, looked through or not; null while it cannot be. */
export const frameOfCamera = (
  camera: ProjectCamera,
  { viewport, conventions }: Pick<Project, 'viewport' | 'conventions'>,
): CameraFrame | null => frames(camera)(viewport, conventions);

/** The other cameras with their frames. */
export const otherCameras = ({
  project,
}: Pick<Moment, 'project'>): readonly { camera: ProjectCamera; frame: CameraFrame }[] =>
  project.cameras.flatMap((camera) => {
    const frame = frameOfCamera(camera, project);
    return frame ? [{ camera, frame }] : [];
  });
