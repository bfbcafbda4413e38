import { defaultConventions } from '../core/conventions/conventions';
import { projectSchema, type Project } from '../formats/project';

const common = (id: string, name: string) => ({
  astrolabeProject: 1 as const,
  id,
  name,
  unit: 'units',
  conventions: defaultConventions,
  viewport: { width: 1280, height: 720, devicePixelRatio: 1 },
});

/** Creates an empty 3D project: a camera over level ground. */
export const emptySpace = (id: string, name = 'New 3D project'): Project =>
  projectSchema.parse({
    ...common(id, name),
    camera: {
      name: 'Camera',
      position: [0, 2, 10],
      orientation: { kind: 'lookAt', target: [0, 1, 0] },
      projection: { kind: 'perspective', verticalFov: 60, near: 0.1, far: 500 },
    },
    ground: { name: 'ground', height: 0 },
    probe: { body: null, drive: { rung: 'world', value: [0, 1, 0] } },
    back: { pixel: [640, 360], route: 'plane', value: 0 },
  });

/** Creates an empty 2D project: one pixel to a unit, the origin in the left corner that y grows from. */
export function emptyFlat(id: string, grows: 'up' | 'down' = 'down', name = 'New 2D project'): Project {
  const isDown = grows === 'down';
  return projectSchema.parse({
    ...common(id, name),
    conventions: { ...defaultConventions, world: { right: '+x', up: isDown ? '-y' : '+y', forward: '-z' } },
    camera: { kind: '2d', name: 'Camera', focus: [0, 0], anchor: [0, isDown ? 0 : 720], zoom: 1 },
    probe: { body: null, drive: { rung: 'world', value: [640, isDown ? -360 : 360, 0] } },
    back: { pixel: [640, 360], route: 'ahead', value: 0 },
  });
}
