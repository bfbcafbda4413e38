import { flatCamera } from '../../../formats/camera';
import { tileSide } from '../../../formats/project';
import { useMoment } from '../../state/tempo';
import { edgesAlong } from '../../state/tiles';
import { editCamera2d } from '../../state/document';
import { editable, figure } from '../../ui/figures';
import { SnapChoice } from '../../sheet/SnapChoice';
import { NumberField } from '../../sheet/NumberField';
import { WorkingButton } from '../../working/WorkingButton';

/**
 * Scrolling by fractions of a pixel: which edges of the map land between pixels, and what snapping
 * does to them.
 */
export function Scroll() {
  return (
    <>
      <Edges />
    </>
  );
}

const shown = 8;

function Edges() {
  const moment = useMoment();
  const { project, points } = moment;
  const camera = flatCamera(project);
  if (!(camera.zoom > 0)) return <p className="text-note text-ink2">The zoom is not above 0: there are no edges.</p>;
  const size = tileSide(project);
  const upright = camera.rotation % 90 === 0;
  return (
    <>
      <div className="row">
        <span className="label">Scroll by</span>
        <NumberField
          name="Scroll right"
          source="tiles"
          label={points.letters[0]}
          width="50%"
          value={points.show([...camera.focus, 0])[0]!}
          step={0.01}
          shown={(v) => figure(v, 3)}
          onChange={(v, gesture) =>
            editCamera2d('scroll', (c) => void (c.focus = [points.read([v, 0])[0], c.focus[1]]), gesture)
          }
        />
      </div>
      <SnapChoice snap={camera.snap} />
      {!upright ? (
        <p className="text-note leading-4 text-ink2">
          Turned by {editable(camera.rotation)}°, edges run across pixels: there is nothing to snap them to.
        </p>
      ) : (
        ([0, 1] as const).map((i) => {
          const letter = points.letters[i];
          const edges = edgesAlong(moment, i, shown)?.edges;
          if (!edges) return null;
          return (
            <div key={letter} className="edge-table" data-testid={`edges-${letter}`}>
              <div className="rule">
                Edges along {letter} <WorkingButton of="edges" subject={{ axis: i }} about={letter} />{' '}
                <em>tile {figure(camera.zoom * size, 2)} px</em>
              </div>
              <div className="way-row head">
                <span>{letter}</span>
                <span>free</span>
                <span>{camera.snap === 'round' ? 'to the nearest' : 'snapped down'}</span>
              </div>
              {edges.map(({ at, pixel, snappedPixel, between, snappedBetween }) => (
                <div className="way-row" key={at}>
                  <span className="font-mono">
                    {editable(points.show(i ? [0, at, 0] : [at, 0, 0])[i]!).replace('-', '\u2212')}
                  </span>
                  <span className={`font-mono${between ? ' text-plum' : ''}`}>{figure(pixel, 2)}</span>
                  <span className={`font-mono${snappedBetween ? ' text-plum' : ''}`}>{figure(snappedPixel, 2)}</span>
                </div>
              ))}
              <p className="text-small leading-4 text-ink2">
                {between(edges.map((one) => one.between))} free, {between(edges.map((one) => one.snappedBetween))}{' '}
                snapped. Tiles drawn each for itself, rounded to whole pixels, come out{' '}
                {widths(edges.map((one) => one.pixel))} px wide free and {widths(edges.map((one) => one.snappedPixel))}{' '}
                px snapped.
              </p>
            </div>
          );
        })
      )}
    </>
  );
}

const between = (flags: readonly boolean[]) => {
  const count = flags.filter(Boolean).length;
  return count ? `${count} of ${flags.length} edges land between pixels` : 'no edge lands between pixels';
};

/** The widths that tiles get when each of their edges is rounded for itself. */
function widths(pixels: readonly number[]): string {
  const rounded = pixels.map(Math.round);
  return [...new Set(rounded.slice(1).map((v, i) => Math.abs(v - rounded[i]!)))].sort((a, b) => a - b).join(' or ');
}
