import type { Find } from '../task';

const field = (name: string, label: string, words?: string): Find => ({
  ...{ name, at: `[aria-label="${label}"]` },
  ...(words !== undefined && { words }),
});
const within = (world: 'space' | 'flat', list: readonly Find[]): Find[] => list.map((one) => ({ ...one, world }));

/** What the worksheet of Frame has, by its names and by other words of the trade. */
export const finds: readonly Find[] = [
  ...within('space', [
    { name: 'What the camera sees', at: '[data-section="seen"]', words: 'fit frame bounds extent' },
    field('Projection', 'Projection', 'perspective orthographic ortho'),
    field('Vertical field of view', 'Vertical field', 'FOV fovy angle'),
    field('Horizontal field of view', 'Horizontal field', 'FOV fovx angle'),
    field('Diagonal field of view', 'Diagonal field', 'FOV angle'),
    field('Focal length', 'Focal length', 'lens millimetres'),
    field('Sensor height', 'Sensor height', 'film aperture'),
    field('Pixels per unit at the subject', 'Pixels per unit there', 'scale size density'),
    field('Near limit', 'Near', 'near clip plane znear'),
    field('Far limit', 'Far', 'far clip plane zfar infinite'),
    { name: 'Lens shift, edges and aspect', at: '[data-section="lens"]', words: 'off-centre frustum aspect ratio' },
    field('Eye', 'Eye x', 'position camera location translate translation'),
    field('Point looked at', 'Look at x', 'lookAt target aim focus subject'),
    field('Moving by an amount', 'Move right', 'translate offset strafe dolly'),
    field('Pitch limit', 'Pitch limit', 'clamp gimbal'),
    field('Up vector', 'Look-at up x', 'world up roll'),
    field('Yaw', 'yaw', 'heading azimuth rotation rotate angle'),
    field('Pitch', 'pitch', 'elevation rotation rotate angle'),
    field('Roll', 'roll', 'bank tilt rotation rotate angle'),
    field('Basis', 'Basis right x', 'axes orthonormalise rotation matrix'),
    field('Quaternion of the camera', 'Quaternion x', 'rotation orientation'),
    { name: 'Depth resolution', at: '[data-section="depth"]', words: 'z-fighting precision depth buffer reversed z' },
  ]),
  ...within('flat', [
    { name: 'Focus', at: 'input[aria-label^="Focus "]', words: 'position centre camera location translate look at' },
    field('Anchor', 'Anchor x', 'origin offset screen'),
    field('Zoom', 'Zoom', 'scale pixels per unit'),
    field('Width seen', 'Width seen', 'extent size ortho width'),
    field('Height seen', 'Height seen', 'extent size orthographic size'),
    { name: 'Centre of the view', at: 'input[aria-label^="Centre "]', words: 'position middle' },
    field('Half width and half height', 'Half width seen', 'orthographic size extent'),
    field('Rotation of the world', 'Rotation', 'turn rotate angle'),
    field('World up', 'World up', 'y up y down flip'),
    field('Snapping to whole pixels', 'Snap', 'pixel snap rounding seams'),
    {
      name: 'Integer scaling',
      at: '[data-section="whole-zooms"]',
      words: 'whole-number zooms pixel art pixel perfect',
    },
  ]),
  {
    name: 'Screens',
    at: '[data-section="screens"]',
    words: 'resolution aspect letterbox contain cover fit policy safe area devices',
  },
];
