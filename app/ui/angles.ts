import type { ConventionCodec } from '../../core/conventions/codec';

/** Whether angles are written in degrees. */
export const inDegrees = ({ conventions }: Pick<ConventionCodec, 'conventions'>): boolean =>
  conventions.angles.unit === 'degrees';

/** The unit of angles as a field or a column names it. */
export const angleUnit = (codec: Pick<ConventionCodec, 'conventions'>): string => (inDegrees(codec) ? '°' : 'rad');

/** The unit of angles behind a number in a sentence: a degree sign stands close, a word apart. */
export const angleSuffix = (codec: Pick<ConventionCodec, 'conventions'>): string => (inDegrees(codec) ? '°' : ' rad');
