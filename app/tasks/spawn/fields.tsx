import type { Draft } from 'immer';
import { letterOf } from '../../../core/conventions/axes';
import { NumberField } from '../../sheet/NumberField';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { lengths } from '../../ui/parseNumber';
import { change } from './edits';
import type { SpawnState } from './state';

type Pair = readonly [number, number];

/** A pair of the surface’s coordinates as two fields, in the conventions in force. */
export function PairFields({
  name,
  value,
  set,
  source,
}: {
  name: string;
  value: Pair;
  set: (draft: Draft<SpawnState>, v: [number, number]) => void;
  source?: string;
}) {
  const { flat, codec: e, points: form } = useTaskMoment<SpawnState>('spawn');
  const second = flat ? 'up' : 'forward';
  const { world } = e.conventions;
  const letters = flat ? form.letters : [letterOf(world.right), letterOf(world.forward)];
  const shown = e.toPair(second, value);
  return shown.map((v, i) => (
    <NumberField
      key={i}
      label={letters[i]!}
      name={`${name} ${letters[i]}`}
      source={i === 0 ? source : undefined}
      width="50%"
      value={v}
      shown={(n) => figure(n, 1)}
      units={lengths}
      onChange={(n, gesture) =>
        change(
          `set ${name.toLowerCase()}`,
          (draft) => set(draft, [...e.fromPair(second, i === 0 ? [n, shown[1]] : [shown[0], n])]),
          gesture,
        )
      }
    />
  ));
}

/** One length of the slice. */
export function Length({
  name,
  label,
  value,
  set,
  least = 0,
  width = '50%',
  source,
}: {
  name: string;
  label: string;
  value: number;
  set: (draft: Draft<SpawnState>, v: number) => void;
  least?: number | 'above 0';
  width?: string;
  source?: string;
}) {
  return (
    <NumberField
      name={name}
      label={label}
      width={width}
      value={value}
      units={lengths}
      source={source}
      refuse={(v) =>
        least === 'above 0'
          ? v > 0
            ? null
            : `${name} is above 0.`
          : v >= least
            ? null
            : `${name} is ${least} or more.`
      }
      onChange={(v, gesture) => change(`set the ${name.toLowerCase()}`, (draft) => set(draft, v), gesture)}
    />
  );
}
