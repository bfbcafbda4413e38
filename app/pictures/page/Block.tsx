import type { ReactNode } from 'react';
import { useDrawings } from '../../state/drawings';
import { useSettings } from '../../state/settings';
import { fitDrawing, paneStyle } from './Drawing';
import { snapshotPlateMarks } from '../compose/furniture';
import { useDrawnPanes, useFailure } from './picturesClient';
import { SaveMenu } from './SaveMenu';
import { FixedMarks } from './svgMarks';
import type { PaneName } from '../compose/panes';
import { plateSize, rulerX, rulerY, type Slot } from '../compose/slots';

/** A picture under its caption. */
export function Block({
  slot,
  name,
  title,
  heading = title,
  sub,
  facts,
  fits = false,
  savable = false,
  save,
  children,
}: {
  slot: Slot;
  name: 'main' | PaneName;
  title: string;
  /** What stands for the title where it is more than words. */
  heading?: ReactNode;
  sub: ReactNode;
  facts?: ReactNode;
  /** Whether it can be moved and so be fitted again. */
  fits?: boolean;
  /** Whether it is a picture that can be saved as a file. */
  savable?: boolean;
  /** Saves the pane as text, CSV, SVG or PNG, where it is no picture. */
  save?: (() => void) | undefined;
  children: ReactNode;
}) {
  const enlarged = useSettings((state) => state.enlarged);
  return (
    <section className="picture-block" data-picture={name} style={paneStyle(slot)} aria-label={`${title}, a picture`}>
      <div className="caption">
        <h2>{heading}</h2>
        {sub && <span className="sub">{sub}</span>}
        <span className="space" />
        {facts}
        {fits && (
          <button
            className="small"
            onClick={() => fitDrawing(name)}
            title="Bring the camera and what it sees into the drawing"
          >
            Fit
          </button>
        )}
        {savable && <SaveMenu name={name} title={title} />}
        {save && (
          <button className="small" aria-label={`Save: ${title}`} title="Save this pane as a file" onClick={save}>
            Save
          </button>
        )}
        <button
          className="small enlarge"
          title={enlarged ? 'Show all panes again' : 'Show this pane alone'}
          onClick={() => useSettings.setState({ enlarged: enlarged ? null : name })}
        >
          {enlarged ? 'Show all' : 'Enlarge'}
        </button>
      </div>
      {savable && <Coming name={name} />}
      {children}
    </section>
  );
}

/** Covers a picture that is not drawn yet. */
function Coming({ name }: { name: string }) {
  const isDrawn = useDrawnPanes(({ names }) => names.has(name));
  const hasFailed = useFailure(({ message }) => message !== null);
  return isDrawn || hasFailed ? null : <p className="coming">Drawing…</p>;
}

/** A snapshot beside the camera's picture: drawn by the painter, framed here. */
export function SnapshotPlate({ slot, name }: { slot: Slot; name: string }) {
  const { width, height } = plateSize(slot);
  const [w, h] = [slot.width, slot.height];
  return (
    <section
      className="picture-block"
      data-picture="snapshot"
      style={paneStyle(slot)}
      aria-label={`${name}, a snapshot`}
    >
      <div className="caption">
        <h2>Snapshot</h2>
        <span className="sub">{name}</span>
        <span className="space" />
        <button className="small" onClick={() => useDrawings.setState({ snapshot: null })}>
          Close
        </button>
      </div>
      <svg
        className="overlay"
        width={w}
        height={h}
        viewBox={`0 0 ${w} ${h}`}
        role="img"
        aria-label={`Snapshot ${name}`}
      >
        <g transform={`translate(${rulerX} ${rulerY})`}>
          <FixedMarks marks={snapshotPlateMarks({ width, height })} />
        </g>
      </svg>
    </section>
  );
}
