import { sub, type Vec3 } from '../../../core/math/vec3';
import { fieldCentres, type FieldSeen } from '../../../core/visibility/field';
import type { InstanceLayer, SpeckLayer } from '../../pictures/compose/contract';
import { memo, remembered } from '../../state/memo';
import type { Moment } from '../../state/moment';
import type { TestField, VisibilityState } from './kept';

/* The field of test bodies as the sheet and the pictures have it. */

/** What a job has found of a field: a tint a body. */
export interface FieldFound {
  /** Of which field, by `fieldKey`. */
  readonly key: string;
  readonly tints: Uint8Array;
  readonly seen: FieldSeen;
  /** The test alone, the tree over the field standing. */
  readonly milliseconds: number;
}

/** What of a field says where its bodies are, as a text. */
export const fieldKey = ({ arrangement, shape, count, size, min, max, seed }: TestField): string =>
  JSON.stringify([arrangement, shape, count, size, min, max, arrangement === 'scatter' ? seed : 0]);

/** What was found of the field as it is now; null before it has been. */
export function foundNow(now: Moment<VisibilityState>): FieldFound | null {
  const { field } = now.slice;
  const found = now.answer<FieldFound>('field');
  return field?.shown && found?.key === fieldKey(field) ? found : null;
}

export const middleOf = ({ min, max }: Pick<TestField, 'min' | 'max'>): Vec3 =>
  min.map((v, i) => v / 2 + max[i]! / 2) as unknown as Vec3;

/** With no more bodies than this each is drawn as what it is. */
export const mostWhole = 2000;
/** In a flat world test bodies lie over the layers of all others. */
const overAll = 0.9;

let revisions = 0;
const placesRevision = memo((key: string, flat: boolean) => (void [key, flat], ++revisions));
const tintRevisionOf = remembered((tints: Uint8Array) => (void tints, ++revisions));

const places = (field: TestField, flat: boolean) => (): Float32Array => {
  const centres = fieldCentres(field);
  const middle = middleOf(field);
  const values = new Float32Array((4 * centres.length) / 3);
  for (let from = 0, to = 0; from < centres.length; from += 3, to += 4) {
    values[to] = centres[from]! - middle[0];
    values[to + 1] = centres[from + 1]! - middle[1];
    values[to + 2] = flat ? overAll : centres[from + 2]! - middle[2];
    values[to + 3] = field.size / 2;
  }
  return values;
};

/** Few enough bodies, each with its transform. */
const whole = memo((key: string, field: TestField): Pick<InstanceLayer, 'transforms'> => {
  void key;
  const middle = middleOf(field);
  const centres = fieldCentres(field);
  const transforms = new Float32Array(4 * centres.length);
  for (let from = 0, to = 0; from < centres.length; from += 3, to += 12) {
    const at = sub([centres[from]!, centres[from + 1]!, centres[from + 2]!], middle);
    for (let row = 0; row < 3; row++) {
      transforms[to + 5 * row] = field.size;
      transforms[to + 4 * row + 3] = at[row]!;
    }
  }
  return { transforms };
});

/** The field as a layer of every picture, tinted by what was found of it. */
export function fieldLayer(now: Moment<VisibilityState>): InstanceLayer | SpeckLayer | null {
  const { slice, flat } = now;
  const { field } = slice;
  if (!field?.shown) return null;
  const key = fieldKey(field);
  const tints = foundNow(now)?.tints ?? null;
  const base = { key: 'field', revision: placesRevision(key, flat), origin: middleOf(field) };
  const tintRevision = tints ? tintRevisionOf(tints) : 0;
  if (!flat && field.count <= mostWhole)
    return {
      ...{ ...base, kind: 'instances', shape: field.shape, tintRevision, ...whole(key, field) },
      tints: tints ?? new Uint8Array(field.count),
    };
  return {
    ...{ ...base, kind: 'specks', round: field.shape === 'sphere', tints, tintRevision },
    places: places(field, flat),
    // Flat, the depth is said by the places.
    origin: flat ? [base.origin[0], base.origin[1], 0] : base.origin,
  };
}
