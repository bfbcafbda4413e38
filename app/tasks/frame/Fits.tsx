import { useMemo } from 'react';
import { seenShare } from '../../../core/visibility/share';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { useSelection, selectNothing } from '../../state/selection';
import { useMoment, usePart } from '../../state/tempo';
import { counted, percent } from '../../ui/figures';
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
        <p className="mt-1 text-small leading-4 text-ink2">
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

/**
 * How much of what is wanted is within the frustum, with the parts that hang on it: of all that is
 * selected, or else of what is probed; null where there is nothing of the kind.
 */
const wanted = memo(
  (
    { frame, flat }: Pick<Moment, 'frame' | 'flat'>,
    placed: Moment['placed'],
    roots: Moment['roots'],
    ids: readonly string[],
  ) =>
    seenShare(
      frame,
      [...placed].flatMap(([id, one]) => (ids.includes(id) || ids.includes(roots.get(id)!) ? [one] : [])),
      flat,
    ),
);

/** How many bodies have a part in the picture, and how much of the wanted one. */
export function InView({ count, of }: { count: number; of: number }) {
  const moment = useMoment();
  const { project, placed, roots } = moment;
  const selected = useSelection((state) => state.ids);
  const { body } = project.probe;
  const ids = useMemo(() => (selected.length ? selected : body === null ? [] : [body]), [selected, body]);
  const share = wanted(moment, placed, roots, ids);
  const name = project.bodies.find(({ id }) => id === ids[0])?.name;
  return (
    <>
      <div className="line">
        <Glyph kind={count ? 'inside' : 'outside'} size={11} />
        <b className={count ? 'text-teal' : 'text-plum'}>
          {count ? `${count} of ${counted(of, 'body', 'bodies')} in view` : of ? 'No body in view' : 'No bodies yet'}
        </b>
      </div>
      {share !== null && (
        <div className="line" title="The share of its surface that lies within the frustum, whatever hides it">
          {ids.length > 1 ? `The ${ids.length} selected` : name}
          <span className={`right${share < 0.5 ? ' text-plum' : ''}`} data-testid="seen-share">
            {percent(share)} of {ids.length > 1 ? 'them' : 'it'} within
          </span>
        </div>
      )}
    </>
  );
}
