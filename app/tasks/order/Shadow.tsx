import { useDrag } from '@use-gesture/react';
import { useId } from 'react';
import { degrees, radians } from '../../../core/math/angle';
import { lightFrom, planarShadow, shadowOf } from '../../../core/order/shadow';
import { Casters, castersNow } from '../../sheet/Casters';
import { endGesture } from '../../state/document';
import { firstLight, lightOf, receiverOf, type ProjectLight } from '../../state/light';
import { useTaskMoment } from '../../state/tempo';
import { reasonSentence } from '../../state/wording';
import { Choice } from '../../ui/Choice';
import { figure, plain } from '../../ui/figures';
import { copy } from '../../ui/notices';
import { WorkingButton } from '../../working/WorkingButton';
import { change } from './edits';
import { Field } from './fields';
import type { OrderState } from './kept';

/** The light, the plane that shadows fall on, and what comes of both. */
export function Shadow() {
  const now = useTaskMoment<OrderState>('order');
  const { slice, codec: e, chain, project, sceneBounds } = now;
  const { light, receiver } = slice;
  const core = lightOf(light);
  const plane = receiverOf(slice);
  const matrix = planarShadow(core, plane);
  const shadow = chain.ok ? shadowOf(core, plane, chain.value.world) : null;
  const shown = matrix.ok ? e.toModel(matrix.value) : null;
  const all = castersNow(now);
  const alone = all.filter(({ seen }) => seen === 'shadow alone').length;
  return (
    <>
      <div className="row">
        <label className="check">
          <input
            type="checkbox"
            checked={slice.shadows}
            onChange={() => change('show or hide the shadows', (draft) => void (draft.shadows = !draft.shadows))}
          />
          Drawn in every picture
        </label>
        <span className="ml-auto">
          <Choice
            name="Light"
            value={light.kind}
            options={[
              { value: 'sky', label: 'sky', title: 'From one direction everywhere' },
              { value: 'lamp', label: 'lamp', title: 'From a point' },
            ]}
            onChange={(kind) =>
              change('change the light', (draft) => {
                if (kind === draft.light.kind) return;
                const { centre, radius } = sceneBounds;
                const towards = lightFrom(radians(120), radians(35));
                draft.light =
                  kind === 'sky'
                    ? firstLight
                    : {
                        kind,
                        at: [0, 1, 2].map((i) => Math.round(centre[i]! - towards[i]! * radius * 0.5)) as [
                          number,
                          number,
                          number,
                        ],
                      };
              })
            }
          />
        </span>
      </div>
      {light.kind === 'sky' ? (
        <>
          <SkyDial light={light} />
          <div className="row wide">
            <span className="label" title="Where the light stands: as yaw is counted, from ahead of the world">
              Bearing, altitude
            </span>
            <Field at={['light', 'bearing']} width={78} />
            <Field at={['light', 'altitude']} width={78} />
          </div>
        </>
      ) : (
        <div className="row">
          <span className="label">Lamp</span>
          <Field at={['light', 'at']} width="33%" />
        </div>
      )}
      <div className="row wide">
        <span className="label">Falls on the level</span>
        <Field at="receiver" width={104} unit={project.unit} />
        {project.ground && receiver !== project.ground.height && (
          <button
            className="text-button"
            onClick={() =>
              change('put the receiver on the ground', (draft) => void (draft.receiver = project.ground!.height))
            }
          >
            on the {project.ground.name}
          </button>
        )}
      </div>
      <div className="result">
        {!matrix.ok ? (
          <p className="none" data-testid="shadow-none">
            The light runs along the receiver, or stands in it: there are no shadows. Raise it.
          </p>
        ) : (
          <div className="line">
            shadow of the probe <WorkingButton of="shadow" />
            {shadow && !shadow.ok && <span className="right">none</span>}
          </div>
        )}
        {shadow?.ok && matrix.ok && (
          <div className="line">
            <button
              className="number right"
              title="Copy the shadow’s point"
              data-testid="probe-shadow"
              onClick={() => void copy(`[${e.toWorld(shadow.value).map(plain).join(', ')}]`, 'the shadow of the probe')}
            >
              {e
                .toWorld(shadow.value)
                .map((v) => figure(v, 2))
                .join(', ')}
            </button>
          </div>
        )}
        {shadow && !shadow.ok && matrix.ok && <p className="none">{reasonSentence[shadow.reason]}</p>}
        <div className="line">
          seen by their shadow alone
          <span className="right" data-testid="shadow-alone">
            {alone}
          </span>
        </div>
      </div>
      {shown && (
        <>
          <div className="rule">
            Matrix to the shadow <em>divide by w</em>
            <button
              className="text-button ml-2"
              onClick={() => void copy(JSON.stringify(e.toList(shown)), 'the shadow matrix')}
            >
              Copy
            </button>
          </div>
          <div className="matrix small" data-testid="shadow-matrix">
            {shown.map((v, i) => (
              <span key={i} className={v === 0 ? 'zero' : undefined}>
                {figure(v, 3)}
              </span>
            ))}
          </div>
        </>
      )}
      <div className="rule">Casters</div>
      <Casters name="casters" rows={all} />
    </>
  );
}

const radius = 42;
const place = (angle: number, r = radius): string => `${r * Math.sin(angle)} ${-r * Math.cos(angle)}`;

/** The light on a compass seen from above, and on an arc from the level to straight above. */
function SkyDial({ light }: { light: Extract<ProjectLight, { kind: 'sky' }> }) {
  const now = useTaskMoment<OrderState>('order');
  const id = useId();
  const { bearing, altitude } = light;
  const { forward } = now.frame;
  const heading = Math.atan2(forward[0], -forward[2]);
  // The dials step by whole degrees.
  const [bearingDegrees, altitudeDegrees] = [degrees(bearing), degrees(altitude)];
  const turn = (part: 'bearing' | 'altitude', inDegrees: number) =>
    change('turn the light', (draft) => void (draft.light = { ...light, [part]: radians(inDegrees) }), `dial ${id}`);
  const onBearing = useDrag(({ xy, event, last }) => {
    const box = (event.currentTarget as SVGElement | null)?.ownerSVGElement?.getBoundingClientRect();
    if (box) {
      const [x, y] = [xy[0] - box.left - 50, xy[1] - box.top - 50];
      if (Math.hypot(x, y) > 4) turn('bearing', Math.round(degrees(Math.atan2(x, -y))));
    }
    if (last) endGesture();
  });
  const onAltitude = useDrag(({ xy, event, last }) => {
    const box = (event.currentTarget as SVGElement | null)?.ownerSVGElement?.getBoundingClientRect();
    if (box) {
      const [x, y] = [xy[0] - box.left - 132, box.top + 92 - xy[1]];
      turn('altitude', Math.max(-90, Math.min(90, Math.round(degrees(Math.atan2(y, Math.max(1, x)))))));
    }
    if (last) endGesture();
  });
  const step = (key: string, part: 'bearing' | 'altitude'): void => {
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[key];
    if (!by) return;
    turn(part, part === 'altitude' ? Math.max(-90, Math.min(90, altitudeDegrees + by)) : bearingDegrees + by);
    endGesture();
  };
  const ticks = Array.from({ length: 24 }, (_, i) => (i * Math.PI) / 12);
  const arc = 78;
  const onArc = (a: number, r = arc) => `${132 + r * Math.cos(a)} ${92 - r * Math.sin(a)}`;
  const low = Math.min(0, Math.max(-0.1, altitude));
  return (
    <svg className="sky-dial" width="224" height="104" viewBox="0 0 224 104">
      <g transform="translate(50 50)">
        <circle className="dial-field" r={radius} />
        <path
          className="dial-ticks"
          d={ticks.map((a, i) => `M${place(a, radius)}L${place(a, radius - (i % 6 ? 4 : 8))}`).join('')}
        />
        <text className="dial-word" y={-radius + 19} textAnchor="middle">
          ahead
        </text>
        <path className="dial-gaze" d={`M0 0L${place(heading, radius - 10)}`} />
        <path className="dial-light" d={`M${place(bearing, radius - 6)}L0 0`} />
        <path className="dial-head" d="M0 -3L3.6 6H-3.6Z" transform={`rotate(${bearingDegrees + 180})`} />
        <g
          {...onBearing()}
          className="dial-hold"
          role="slider"
          tabIndex={0}
          aria-label="Bearing of the light on the compass"
          aria-valuenow={Math.round(bearingDegrees)}
          aria-valuetext={`${Math.round(bearingDegrees)} degrees clockwise from ahead`}
          onKeyDown={({ key }) => step(key, 'bearing')}
          transform={`translate(${place(bearing).replace(' ', ',')})`}
        >
          <circle r="11" fill="transparent" />
          <path className="dial-lozenge" d="M0 -6L6 0 0 6 -6 0Z" />
        </g>
      </g>
      <path className="dial-level" d={`M132 92H218`} />
      <path className="dial-arc" d={`M${onArc(0)}A${arc} ${arc} 0 0 0 ${onArc(Math.PI / 2)}`} />
      <path
        className="dial-ticks"
        d={[0, 1, 2, 3, 4, 5, 6]
          .map((i) => `M${onArc((i * Math.PI) / 12)}L${onArc((i * Math.PI) / 12, arc - (i % 3 ? 4 : 8))}`)
          .join('')}
      />
      <path className="dial-light" d={`M${onArc(altitude < 0 ? low : altitude, arc - 6)}L132 92`} />
      <g
        {...onAltitude()}
        className="dial-hold"
        role="slider"
        tabIndex={0}
        aria-label="Altitude of the light on the arc"
        aria-valuenow={Math.round(altitudeDegrees)}
        aria-valuemin={-90}
        aria-valuemax={90}
        onKeyDown={({ key }) => step(key, 'altitude')}
        transform={`translate(${onArc(altitude < 0 ? low : altitude).replace(' ', ',')})`}
      >
        <circle r="11" fill="transparent" />
        <path className="dial-lozenge" d="M0 -6L6 0 0 6 -6 0Z" />
      </g>
    </svg>
  );
}
