import type { Angles } from '../../core/camera/orientation';
import type { ConventionCodec } from '../../core/conventions/codec';
import { figure } from './figures';

/** Whether angles are written in degrees. */
export const inDegrees = ({ conventions }: Pick<ConventionCodec, 'conventions'>): boolean =>
  conventions.angles.unit === 'degrees';

/** The unit of angles as a field or a column names it. */
export const angleUnit = (codec: Pick<ConventionCodec, 'conventions'>): string => (inDegrees(codec) ? '°' : 'rad');

/** The unit of angles behind a number in a sentence: a degree sign stands close, a word apart. */
export const angleSuffix = (codec: Pick<ConventionCodec, 'conventions'>): string => (inDegrees(codec) ? '°' : ' rad');

/** Radians have two decimals more than degrees for about the same precision. */
const moreInRadians = 2;
/** Returns the decimals of an angle, given those that it has in degrees. */
export const angleDecimals = (codec: Pick<ConventionCodec, 'conventions'>, inDegreesDecimals = 2): number =>
  inDegreesDecimals + (inDegrees(codec) ? 0 : moreInRadians);

/** Formats an angle that is already in the unit in force, with the unit. `decimals` are those in degrees. */
export const writtenAngleText = (
  codec: Pick<ConventionCodec, 'conventions'>,
  written: number,
  decimals?: number,
): string => `${figure(written, angleDecimals(codec, decimals))}${angleSuffix(codec)}`;

/** Formats an angle in radians in the unit in force, with the unit. `decimals` are those in degrees. */
export const angleText = (codec: ConventionCodec, radians: number, decimals?: number): string =>
  writtenAngleText(codec, codec.toAngle(radians), decimals);

/** Formats a yaw, pitch or roll in radians in the unit and the sense in force, with the unit. */
export const turnText = (codec: ConventionCodec, name: keyof Angles, radians: number, decimals?: number): string =>
  writtenAngleText(codec, codec.toAngles({ yaw: 0, pitch: 0, roll: 0, [name]: radians })[name], decimals);
