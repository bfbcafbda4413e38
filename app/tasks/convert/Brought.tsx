import { usualWorlds, wordsOfWorld } from '../../../core/conventions/ready';
import { origins, type Origin } from '../../../formats/settle';
import { takeAs, useBrought } from '../../edits/brought';
import { useMoment } from '../../state/tempo';
import { NumberField } from '../../sheet/NumberField';
import { Head } from './Head';

const originNames: Readonly<Record<Origin, string>> = {
  kept: 'where it is',
  middle: 'in its middle',
  base: 'under its middle',
};

/** How the numbers of the model that was brought in last are taken: its axes, origin and size. */
export function Brought() {
  const { brought } = useBrought();
  const { project } = useMoment();
  if (!brought || brought.of !== project.id) return null;
  const { taken, name } = brought;
  const words = taken.world && wordsOfWorld(taken.world);
  return (
    <section aria-label="Brought in">
      <Head aside={name}>Brought in</Head>
      <div className="row">
        <span className="label">Axes</span>
        <select
          className="select min-w-0"
          aria-label="Axes of the model"
          value={words ?? ''}
          onChange={({ target }) =>
            void takeAs({ world: usualWorlds.find((one) => wordsOfWorld(one) === target.value) ?? null })
          }
        >
          <option value="">those in force when it came</option>
          {usualWorlds.map((one) => (
            <option key={wordsOfWorld(one)}>{wordsOfWorld(one)}</option>
          ))}
        </select>
      </div>
      <div className="row">
        <span className="label">Origin</span>
        <select
          className="select"
          aria-label="Origin of the model"
          value={taken.origin}
          onChange={({ target }) => void takeAs({ origin: target.value as Origin })}
        >
          {origins.map((one) => (
            <option key={one} value={one}>
              {originNames[one]}
            </option>
          ))}
        </select>
        <NumberField
          label="×"
          name="Size of the model"
          width={88}
          value={taken.factor}
          refuse={(v) => (v > 0 ? null : 'A model is made larger by a factor above 0.')}
          onChange={(factor, gesture) => void takeAs({ factor }, gesture)}
        />
      </div>
    </section>
  );
}
