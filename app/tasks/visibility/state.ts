import type { Query } from '../../../core/compute/operations';
import { radians } from '../../../core/math/angle';
import type { Vec3 } from '../../../core/math/vec3';
import type { SeenBy } from '../../../core/visibility/size';
import type { Slice } from '../../state/slices';
import { visibilityState, type OverTime, type TestField, type VisibilityState } from './kept';

/** The field that stands first in a world: a grid through all of it, flat on a flat one. */
export function firstField({ centre, half }: { readonly centre: Vec3; readonly half: Vec3 }, flat: boolean): TestField {
  // Two digits are enough for a box that is to be taken hold of.
  const round = (v: number) => Number(v.toPrecision(2));
  const corner = (side: 1 | -1) => centre.map((v, i) => (flat && i === 2 ? 0 : round(v + side * half[i]!)));
  const long = Math.max(...half);
  return {
    ...{ shown: true, arrangement: 'grid', shape: 'sphere', count: 10_000, seed: 1 },
    ...{ min: corner(-1) as [number, number, number], max: corner(1) as [number, number, number] },
    size: round(long / 200) || 1,
  };
}

/** The shortcut as the core has it. */
export const seenByOf = ({ shortcut, factor }: VisibilityState): SeenBy =>
  shortcut === 'sphere' ? { sphere: factor } : shortcut;

/** Version 1 had no field of test bodies, and put nothing away. */
function addField(older: unknown): unknown {
  const { over, ...rest } = older as { over?: object };
  return { ...rest, over: { ...over, away: 'nothing', awayMargin: 40 }, field: null };
}
/** Version 2 had the turn of the camera in degrees a second. */
function toRadians(older: unknown): unknown {
  const { over, ...rest } = older as { over: OverTime };
  return { ...rest, over: { ...over, turnRate: radians(over.turnRate) } };
}

export const slice: Slice<VisibilityState> = {
  version: 3,
  migrate: [addField, toRadians],
  schema: visibilityState,
  initial: () => ({
    ...{ margin: 0, method: 'exact', shortcut: 'centre', factor: 1 },
    ...{ thresholds: [200, 60, 15], hysteresis: 0.1 },
    over: { kind: 'bodies', turnRate: radians(45), speed: 10, seconds: 8, rate: 10, away: 'nothing', awayMargin: 40 },
    field: null,
  }),
  queries: (kept, { world }) => [
    { id: 'visible', op: 'visibility', margin: kept.margin, method: kept.method },
    { id: 'visible by the shortcut', op: 'visibilityBy', test: seenByOf(kept) },
    { id: 'bounds on the screen', op: 'screenBounds' },
    {
      ...({ id: 'apparent sizes', op: 'apparentSize' } as const),
      ...(kept.thresholds.length && world.hasDepth ? { thresholds: [...kept.thresholds] } : {}),
    } satisfies Query,
  ],
};
