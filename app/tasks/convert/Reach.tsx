import { edgeMarker } from '../../../core/convert/edgeMarker';
import { pixelDerivative, pixelVelocity } from '../../../core/convert/derivative';
import { pixelsPerUnit, pixelToPicture } from '../../../core/convert/project';
import type { Vec2, Vec3 } from '../../../core/math/vec3';
import { familyBounds, markerInset } from '../../state/bounds';
import { useMoment } from '../../state/tempo';
import type { Moment } from '../../state/moment';
import { useSelection } from '../../state/selection';
import { angleText } from '../../ui/angles';
import { copy } from '../../ui/notices';
import { figure, plain } from '../../ui/figures';
import { reasonSentence, singular } from '../../state/wording';
import { WorkingButton } from '../../working/WorkingButton';

const pair = (values: readonly number[], decimals = 2) => values.map((v) => figure(v, decimals)).join(', ');
const shown = ({ codec: e, frame }: Moment, pixel: Vec2): Vec2 =>
  e.toScreen(frame.viewport, ...pixelToPicture(frame, pixel));

/**
 * For a probe that is off the picture: which way it lies, how far, and where a marker for it
 * belongs.
 */
export function OffPicture() {
  const moment = useMoment();
  const { chain, frame, codec: e } = moment;
  if (!chain.ok || !chain.value.outside.length) return null;
  const marker = edgeMarker(frame, chain.value.world, markerInset);
  if (!marker)
    return chain.value.pixel.ok ? null : <div className="line">Straight behind: every way to it is as short.</div>;
  const at = shown(moment, marker.pixel);
  const bearing = Math.atan2(marker.direction[1], marker.direction[0]);
  return (
    <>
      <div className="line">
        edge marker <WorkingButton of="edge" />
        <button
          className="right number"
          title="Copy the marker’s pixel"
          data-testid="edge-marker"
          onClick={() => void copy(`[${at.map(plain).join(', ')}]`, 'the edge marker')}
        >
          {pair(at)}
        </button>
      </div>
      <div className="line">
        on the {marker.side === 'top' ? 'upper' : marker.side === 'bottom' ? 'lower' : marker.side} edge
        <span className="right">{angleText(e, bearing, 1)} from right</span>
      </div>
    </>
  );
}

/** A pair that copies when it is clicked. */
const Copied = ({ name, what, value }: { name: string; what: string; value: Vec2 }) => (
  <button
    className="number"
    title={`Copy ${what}`}
    data-testid={name}
    onClick={() => void copy(`[${value.map(plain).join(', ')}]`, what)}
  >
    {pair(value, 4)}
  </button>
);

/** Pixels per unit at the probe, and how its pixel moves with the point. */
export function SizeThere() {
  const moment = useMoment();
  const { chain, frame, codec: e, project, points, flat } = moment;
  if (!chain.ok || !chain.value.pixel.ok) return null;
  const { world, viewRuf } = chain.value;
  const [across, upward] = pixelsPerUnit(frame, viewRuf[2]);
  const derivative = pixelDerivative(frame, world);
  const one = singular(project.unit);
  const { width, height } = frame.viewport;
  /** A movement in the canonical pixels as the screen of the conventions has it. */
  const moved = ([x, y]: Vec2): Vec2 => {
    const [ox, oy] = e.toScreen(frame.viewport, 0, 0);
    const [px, py] = e.toScreen(frame.viewport, (2 * x) / width, (-2 * y) / height);
    return [px - ox, py - oy];
  };
  const axes = points.letters.map((letter, i): [string, Vec3] => [
    letter,
    points.read(points.letters.map((_, k) => (k === i ? 1 : 0))),
  ]);
  return (
    <>
      <div className="rule">
        Size there {!flat && <WorkingButton of="scale" />} <em>px per {one}</em>
      </div>
      <div className="row wide">
        <span className="label">Across, up</span>
        <Copied name="pixels-per-unit" what="pixels per unit" value={[across, upward]} />
      </div>
      {derivative.ok && (
        <div className="rule">
          Jacobian of its pixel <WorkingButton of="derivative" /> <em>px per {one}</em>
        </div>
      )}
      {derivative.ok &&
        axes.map(([letter, axis]) => {
          return (
            <div className="row wide" key={letter}>
              <span className="label">∂ pixel / ∂{letter}</span>
              <Copied
                name={`derivative-${letter}`}
                what={`the derivative by ${letter}`}
                value={moved(pixelVelocity(derivative.value, axis))}
              />
            </div>
          );
        })}
    </>
  );
}

/**
 * The rectangles on the screen that bodies take up: the probed one’s and those of what is selected.
 */
export function Rectangles() {
  const moment = useMoment();
  const { project, roots, codec: e, frame } = moment;
  const ids = useSelection((state) => state.ids);
  const own = project.probe.body === null ? [] : [roots.get(project.probe.body)!];
  const bodies = [...new Set([...own, ...ids])].flatMap((id) => project.bodies.filter((one) => one.id === id));
  if (!bodies.length) return null;
  const rows = bodies.map(({ id, name }) => ({ id, name, found: familyBounds(moment, id) }));
  const rectangle = (min: Vec2, max: Vec2) => {
    const [a, b] = [e.toScreen(frame.viewport, ...min), e.toScreen(frame.viewport, ...max)];
    return [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.abs(b[0] - a[0]), Math.abs(b[1] - a[1])];
  };
  return (
    <>
      <div className="rule">
        Bounding rectangles <em>x, y, width, height</em>
      </div>
      {rows.map(({ id, name, found }) => (
        <div key={id} className="rectangle-row" data-testid={`rectangle-${id}`}>
          <span>{name}</span>
          {found.ok && <WorkingButton of="rectangle" subject={{ body: id }} about={name} />}
          {found.ok ? (
            <button
              className="number"
              title="Copy the rectangle"
              onClick={() =>
                void copy(
                  `[${rectangle(found.value.min, found.value.max).map(plain).join(', ')}]`,
                  `the rectangle of ${name}`,
                )
              }
            >
              {pair(rectangle(found.value.min, found.value.max), 1)}
              {found.value.clipped && <span className="text-ink2"> cut by near</span>}
            </button>
          ) : (
            <span className="text-ink2">{reasonSentence[found.reason]}</span>
          )}
        </div>
      ))}
      {ids.length === 0 && (
        <p className="text-small leading-4 text-ink2">Ctrl-click bodies in the picture to have theirs too.</p>
      )}
    </>
  );
}
