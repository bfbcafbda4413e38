import type { CameraFrame } from '../../core/camera/frame';
import { outsideBit } from '../../core/kernels/points';
import { pixelsPerUnit } from '../../core/convert/project';
import type { ConventionCodec } from '../../core/conventions/codec';
import type { NullReason } from '../../core/reasons';
import type { Moment } from './moment';
import { figure } from '../ui/figures';

/** Why a question has no answer, in a sentence. */
export const reasonSentence: Readonly<Record<NullReason, string>> = {
  behindEye: 'It lies behind the eye, where a picture shows nothing.',
  onEyePlane: 'It lies on the eye’s own plane, where the division by w has no result.',
  rayParallel: 'The ray runs along the plane and never meets it.',
  planeBehindEye: 'The plane is met behind the eye, before the ray begins.',
  depthAtInfinity: 'That depth is infinitely far away.',
  awayFromReceiver: 'It lies beyond the surface or beyond the light, and casts no shadow there.',
  eyeInside: 'The eye is inside the sphere about it, which then has no size in the picture.',
  notWithin: 'It is not seen within the time that is looked at.',
  neverExceeds: 'Its error stays below half a pixel up to a distance of 1e12.',
  noDirection: 'It is at the world’s origin, from which no direction leads to it.',
  outOfRange: 'The numbers are too large for doubles.',
  outsideDepth: 'It lies outside near and far, where the depth buffer keeps nothing.',
  parallelToScreen: 'The direction runs along the screen and has no vanishing point.',
};

export interface Verdict {
  readonly kind: 'inside' | 'outside';
  readonly text: string;
  readonly measure: string;
}

/**
 * What a place on the screen is counted in: CSS pixels run down from the top left, whatever the
 * conventions say; pixels that run up are the viewport's, of the same size.
 */
export const screenUnit = (e: ConventionCodec): string => (e.screenGrowsUp ? 'px' : 'css px');
/** Which way pixels of framebuffer and viewport are counted, in the conventions in force. */
export const countsOf = (e: ConventionCodec): 'y down' | 'y up' => (e.screenGrowsUp ? 'y up' : 'y down');

const sides = {
  left: 'beyond the left edge',
  right: 'beyond the right edge',
  top: 'above the top',
  bottom: 'below the bottom',
} as const;

/** How many CSS pixels a picture position lies past the nearest point of the viewport. */
function pixelsPast({ viewport: { width, height } }: CameraFrame, [x, y]: readonly [number, number]): number {
  return Math.hypot(Math.max(0, -x, x - width), Math.max(0, -y, y - height));
}

/**
 * Of a place at a distance ahead that is on the line of a pixel all the same: why the camera does
 * not show it there. Null where it does.
 */
export function pastLimit({ near, far, kind }: CameraFrame, ahead: number): string | null {
  if (kind === 'perspective' && !(ahead > 0)) return null;
  // What stands on a limit is off it by no more than rounding.
  const off = 1e-9 * Math.max(Math.abs(near), Math.abs(ahead));
  if (ahead < near - off)
    return `It is ${figure(ahead, 2)} ahead, nearer than near (${figure(near, 2)}): the camera shows nothing of it.`;
  if (far !== null && ahead > far + off)
    return `It is ${figure(ahead, 2)} ahead, past far (${figure(far, 2)}): the camera shows nothing of it.`;
  return null;
}

/** Whether the probe can be seen, and if not why not, with the numbers. */
export function probeVerdict({ frame, chain, project, occluder, roots }: Moment): Verdict {
  const unit = project.unit;
  if (!chain.ok) return { kind: 'outside', text: 'No such point', measure: reasonSentence[chain.reason] };
  const { outside, pixel, viewRuf } = chain.value;
  const ahead = viewRuf[2];
  if (!pixel.ok)
    return {
      kind: 'outside',
      text: pixel.reason === 'behindEye' ? 'Behind the eye' : 'On the eye’s plane',
      measure:
        pixel.reason === 'behindEye'
          ? `${figure(-ahead, 2)} ${unit} behind it; only what is ahead has a place. Turn or step back.`
          : 'Neither ahead nor behind: the division by w has no result. Turn or step back.',
    };
  const across = (['left', 'right', 'top', 'bottom'] as const).filter((side) => outside.includes(side));
  if (across.length)
    return {
      kind: 'outside',
      text: `Off screen, ${across.map((side) => sides[side]).join(' and ')}`,
      measure: `${figure(pixelsPast(frame, pixel.value), 1)} css px past the edge`,
    };
  if (outside.includes('near'))
    return {
      kind: 'outside',
      text: 'Nearer than near',
      measure: `${figure(ahead, 2)} ahead, and near is ${figure(frame.near, 2)}. Lower near.`,
    };
  if (outside.includes('far'))
    return {
      kind: 'outside',
      text: 'Beyond far',
      measure: `${figure(ahead, 2)} ahead, and far is ${figure(frame.far!, 2)}. Raise far.`,
    };
  if (occluder) {
    const root = roots.get(occluder.body)!;
    const name = project.bodies.find(({ id }) => id === root)!.name;
    return {
      kind: 'inside',
      text: `On screen, hidden by ${name}`,
      measure: `which stands at range ${figure(occluder.distance, 2)}`,
    };
  }
  const [scale] = pixelsPerUnit(frame, ahead);
  return {
    kind: 'inside',
    text: 'On screen',
    measure: `${figure(scale, scale < 10 ? 2 : 1)} px per ${singular(unit)} here`,
  };
}

/** “metres” as one of them. */
export const singular = (unit: string): string => (unit.endsWith('s') && unit.length > 2 ? unit.slice(0, -1) : unit);

/** A unit's name where there is room for a mark alone. */
export const unitMark = (unit: string): string =>
  ({ metres: 'm', centimetres: 'cm', millimetres: 'mm', feet: 'ft' })[unit] ?? unit;

/** The chain's rungs by the names they go by. */
export const rungNames = {
  local: 'Local',
  world: 'World',
  view: 'View',
  clip: 'Clip',
  ndc: 'NDC',
  screen: 'Screen',
} as const satisfies Record<string, string>;

/** Where a point stands to the picture, by the bits of a kernel’s `outside`, in a few words. */
export function outsideWords(outside: number): string {
  if (outside === 0) return 'on screen';
  if (outside & outsideBit.noPicture) return 'behind';
  return (['left', 'right', 'bottom', 'top', 'near', 'far'] as const)
    .filter((side) => outside & outsideBit[side])
    .join(', ');
}
