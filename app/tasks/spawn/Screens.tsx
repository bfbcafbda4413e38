import { DataList, type ListColumn } from '../../sheet/DataList';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { change } from './edits';
import type { OnScreen } from './job';
import { useFound } from './Points';
import type { SpawnState } from './kept';

const columns: readonly ListColumn<OnScreen>[] = [
  { name: 'Screen', width: '1fr', value: ({ name }) => name },
  { name: 'seen', width: '52px', value: ({ seen }) => seen, decimals: 0 },
  { name: 'wants', width: '64px', value: ({ padding }) => padding },
];

/** The same points against every screen of the tray, and the padding that would make them safe on all. */
export function Screens() {
  const { slice, project } = useTaskMoment<SpawnState>('spawn');
  const found = useFound();
  const screens = found?.screens ?? [];
  const bad = screens.filter(({ seen }) => seen).length;
  const wanted = Math.ceil(screens.reduce((most, { padding }) => Math.max(most, padding), 0) * 100) / 100;
  return (
    <>
      <p className={bad ? 'none' : 'verdict-line'} data-testid="screens">
        {!found
          ? 'Making points…'
          : bad
            ? `Some are seen on ${bad} of ${screens.length} screens. A padding of ${figure(wanted, 2)} ${project.unit} keeps out of all.`
            : `None of them is seen on any of the ${screens.length} screens.`}
      </p>
      {slice.padding < wanted && slice.paddingUnit === 'world' && (
        <button
          className="plain-button"
          onClick={() => change('widen the padding for all screens', (draft) => void (draft.padding = wanted))}
        >
          Take that padding
        </button>
      )}
      <DataList
        name="screens"
        rows={screens}
        keyOf={({ name }) => name}
        columns={columns}
        verdictOf={({ seen }) => (seen ? 'seen' : 'safe')}
      />
      <p className="text-note leading-4 text-ink2">
        By the fit policy in force. Each screen wants the padding about what is seen here that keeps out of it too, for
        any lot of points.
      </p>
    </>
  );
}
