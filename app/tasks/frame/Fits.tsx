import { useSelection, selectNothing } from '../../state/selection';
import { usePart } from '../../state/derive';
import { Glyph } from '../../ui/Glyph';
import { fitEverything, fitProbed, fitSelection } from './edits';

/** The ways to have the camera see something: the probed body, what is selected, everything. */
export function Fits() {
  const { name, count, bodies } = usePart(({ project, placed }) => ({
    name: project.bodies.find(({ id }) => id === project.probe.body)?.name ?? null,
    count: placed.size,
    bodies: project.bodies,
  }));
  const ids = useSelection((state) => state.ids);
  const chosen = bodies.filter(({ id }) => ids.includes(id));
  return (
    <>
      <div className="mt-2 flex flex-wrap gap-1">
        {name !== null && (
          <button className="plain-button" onClick={fitProbed}>
            Fit {name}
          </button>
        )}
        {chosen.length > 0 && (
          <button className="plain-button" onClick={fitSelection}>
            Fit the {chosen.length} selected
          </button>
        )}
        <button className="plain-button" onClick={fitEverything} disabled={!count}>
          Fit everything
        </button>
      </div>
      {count > 1 && (
        <p className="mt-1 text-[11.5px] leading-4 text-ink2">
          {chosen.length ? (
            <>
              Selected: {chosen.map((body) => body.name).join(', ')}.{' '}
              <button className="fold inline" onClick={selectNothing}>
                Select nothing
              </button>
            </>
          ) : (
            'To fit several, select them: Ctrl-click in the picture, or by name.'
          )}
        </p>
      )}
    </>
  );
}

/** How many bodies have a part in the picture. */
export const InView = ({ count, of }: { count: number; of: number }) => (
  <div className="line">
    <Glyph kind={count ? 'inside' : 'outside'} size={11} />
    <b className={count ? 'tl' : 'pl'}>
      {count ? `${count} of ${of} bodies in view` : of ? 'No body in view' : 'No bodies yet'}
    </b>
  </div>
);
