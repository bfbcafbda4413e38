import type { Query } from '../../../core/compute/operations';
import { radians } from '../../../core/math/angle';
import { frameStages } from '../../../core/motion/stages';
import type { Project } from '../../../formats/project';
import type { Slice } from '../../state/slices';
import { mostKeys, motionState, travelSpan, type CameraTrack, type MotionState, type Shaking } from './kept';
import { motionQueries } from './queries';

const shaken: Shaking = {
  ...{ seed: 5, frequency: 1.6, decay: 0, strength: 1, yaw: radians(0.8), pitch: radians(1.1), roll: radians(1.4) },
  offset: [0.12, 0.2],
};

/** The bodies that the demos begin with as subjects. */
const subjects = { harbour: 'lighthouse', chart: 'launch', quay: 'fisher' } as const;

/** The tracks that the demos begin with: each teaches something at once. */
function begin({ guide, camera, cameras }: Project): Record<string, CameraTrack> {
  const ids = new Set([camera, ...cameras].map(({ id }) => id));
  const tracks: Record<string, CameraTrack> =
    guide === 'harbour' && camera.kind === '3d'
      ? {
          'bridge-wing': { travel: { kind: 'rest' }, shake: shaken },
          'lamp-room': {
            travel: {
              ...{ kind: 'walk', pitchLimit: radians(89) },
              inputs: [{ from: 0, to: 36, right: 0, up: 0, ahead: 0, yawRate: radians(10), pitchRate: 0 }],
            },
            shake: null,
          },
          breakwater: {
            travel: { kind: 'dollyZoom', target: [-21, 13, -20], distance: [43.7035468, 12], widest: radians(120), duration: 15, ease: 'gentle' }, // prettier-ignore
            shake: null,
          },
          'round-the-light': {
            travel: { kind: 'orbit', centre: [-21, 11, -20], yawRate: radians(12), pitchRate: 0, pitchLimits: [radians(-60), radians(20)], distanceRate: 0 }, // prettier-ignore
            shake: null,
          },
        }
      : guide === 'chart' && camera.kind === '2d'
        ? {
            [camera.id]: {
              travel: {
                ...{ kind: 'follow', body: 'launch', halfLife: 0.6, lookAhead: 0, deadZone: [6, 4, 0] },
                bounds: { min: [-208, -144], max: [176, 128] },
              },
              shake: null,
            },
          }
        : guide === 'quay' && camera.kind === '2d'
          ? {
              [camera.id]: {
                travel: {
                  ...{ kind: 'follow', body: 'fisher', halfLife: 0.15, lookAhead: 0, deadZone: [24, 12, 0] },
                  bounds: { min: [0, -448], max: [704, 0] },
                },
                shake: null,
              },
            }
          : {};
  return Object.fromEntries(Object.entries(tracks).filter(([id]) => ids.has(id)));
}

const anglesOfVersion1 = new Set(['yaw', 'pitch', 'roll', 'verticalFov', 'yawRate', 'pitchRate', 'pitchLimit', 'pitchLimits', 'widest', 'sensitivity']); // prettier-ignore
/** Version 1 had its angles in degrees: everywhere under these names, and the rate of the turning. */
function toRadians(older: unknown): unknown {
  const convert = (value: unknown): unknown =>
    typeof value === 'number' ? radians(value) : Array.isArray(value) ? value.map(convert) : value;
  const visit = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(visit);
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(
      Object.entries(value).map(([key, one]) => [key, anglesOfVersion1.has(key) ? convert(one) : visit(one)]),
    );
  };
  const { turning, ...rest } = older as MotionState;
  return { ...(visit(rest) as object), turning: { ...turning, rate: radians(turning.rate) } };
}

/** Version 2 wrote a repair every second as null. */
function toRepairSeconds(older: unknown): unknown {
  const { turning, ...rest } = older as { readonly turning: { readonly repair: number | null } };
  return { ...rest, turning: { ...turning, repair: turning.repair ?? 1 } };
}

export const slice: Slice<MotionState> = {
  version: 3,
  migrate: [toRadians, toRepairSeconds],
  schema: motionState,
  initial: (project) => ({
    tracks: begin(project),
    subject: project.guide ? subjects[project.guide] : null,
    ...{ rate: '30', manner: project.camera.kind === '2d' ? 'factor' : 'noStep' },
    ...{ order: [...frameStages], framesPerSecond: 60, layers: [0.5, 0.25] },
    turning: { rate: radians(40), steps: 60, precision: 'float', repair: 1, minutes: 5 },
    steering: { speed: 6, sensitivity: radians(0.2), pitchLimit: radians(85) },
  }),
  span: ({ tracks }, { camera }) => {
    const track = tracks[camera.id];
    return track ? travelSpan(track) : null;
  },
  takeWay: (kept, { id, keys }) => ({
    ...kept,
    tracks: {
      ...kept.tracks,
      [id]: {
        travel: { kind: 'path', keys: keys.slice(0, mostKeys).map((key, i) => ({ ...key, position: [...key.position] as [number, number, number], id: `key-${i + 1}`, ease: 'even' })) }, // prettier-ignore
        shake: null,
      },
    },
  }),
  forget: (kept, gone) => (kept.subject !== null && gone.has(kept.subject) ? { ...kept, subject: null } : kept),
  queries: (kept, now): Query[] => motionQueries(kept, now),
};
