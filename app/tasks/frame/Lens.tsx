import { radians, tidyDegrees } from '../../../core/math/angle';
import { cameraInSpace } from '../../../formats/camera';
import { lensForms, verticalFovOf, type Extents, type Lens as CoreLens } from '../../../core/camera/projection';
import { pixelsPerUnit } from '../../../core/convert/project';
import { addScaled } from '../../../core/math/vec3';
import { setProjectionKind } from '../../edits/actions';
import { moveEye } from '../../edits/camera';
import { useMoment, usePart } from '../../state/tempo';
import { editCamera } from '../../state/document';
import { singular } from '../../state/wording';
import { angleUnit } from '../../ui/angles';
import { Choice } from '../../ui/Choice';
import { NumberField } from '../../sheet/NumberField';
import { figure } from '../../ui/figures';
import { anglesIn, lengths, pixels } from '../../ui/parseNumber';
import { useState } from 'react';
import { setEdges, subjectOf, tidy } from './edits';
import { Line, Number6 } from './Line';

const millimetres = { mm: 1, cm: 10, m: 1000 };

/** What the lens follows from, the eye and the gaze left out. */
const useLens = () =>
  usePart(({ project, codec: e, frame }) => ({
    ...{
      p: cameraInSpace(project).projection,
      sensorHeight: cameraInSpace(project).sensorHeight,
      unit: project.unit,
      viewport: project.viewport,
      e,
    },
    ...{ kind: frame.kind, far: frame.far, ...frame.extents },
  }));

/**
 * The projection in every form in which it can be said, each of them kept in step with the others.
 */
export function Lens() {
  const { p, unit, e, kind, far } = useLens();
  return (
    <>
      <div className="row">
        <Choice
          name="Projection"
          value={p.kind}
          options={[
            { value: 'perspective', label: 'perspective' },
            { value: 'orthographic', label: 'orthographic' },
          ]}
          onChange={setProjectionKind}
        />
      </div>
      {p.kind === 'perspective' ? <Fields /> : <Sizes />}
      <Line label="Near">
        <Number6
          name="Near"
          source="near"
          value={p.near}
          unit={unit}
          units={lengths}
          onChange={(v, gesture) => editCamera('move near', (c) => void (c.projection.near = v), gesture)}
        />
      </Line>
      <Far />
      {kind === 'perspective' && <SizeThere />}
      <Edges />
      <Line label="Depth in NDC">
        <span className="font-mono">
          {figure(e.conventions.ndc.near, 0)} at near, {figure(e.conventions.ndc.far, 0)} at far
        </span>
        {e.conventions.ndc.near > e.conventions.ndc.far && <span className="ml-auto text-ink2">reversed</span>}
      </Line>
      {kind === 'perspective' && far === null && (
        <p className="mt-1 text-small text-ink2">
          Without a far limit the matrix is the limit itself, not a large number.
        </p>
      )}
    </>
  );
}

/**
 * How large a unit is at the subject's distance: typed, it changes the lens, or keeps the field of
 * view and moves the eye along the gaze.
 */
function SizeThere() {
  const moment = useMoment();
  const [by, setBy] = useState<'lens' | 'eye'>('lens');
  const { frame, project } = moment;
  const subject = subjectOf(moment);
  const [, now] = pixelsPerUnit(frame, subject.ahead);
  const set = (wanted: number, gesture: string) => {
    // Pixels are as the tangent of half the field, and as one over the distance.
    const factor = now / wanted;
    if (by === 'eye') return moveEye(addScaled(frame.eye, frame.forward, subject.ahead * (1 - factor)), gesture);
    editCamera(
      'change the field of view',
      ({ projection: p }) => {
        if (p.kind === 'perspective')
          p.verticalFov = tidyDegrees(2 * Math.atan(Math.tan(radians(p.verticalFov) / 2) * factor));
      },
      gesture,
    );
  };
  return (
    <>
      <Line label="Pixels per unit">
        <Number6
          name="Pixels per unit there"
          value={tidy(now)}
          refuse={(v) => (v > 0 ? null : 'A unit takes more than 0 pixels.')}
          onChange={set}
        />
        <span className="there text-small text-ink2" title={`Pixels per ${singular(project.unit)} at ${subject.name}`}>
          there
        </span>
      </Line>
      <Line label="gives way">
        <Choice
          name="What gives way for the size there"
          value={by}
          options={[
            { value: 'lens', label: 'the lens' },
            { value: 'eye', label: 'the eye' },
          ]}
          onChange={setBy}
        />
      </Line>
    </>
  );
}

/** Fields of view and focal length: typing one sets the vertical field, and the rest follow. */
function Fields() {
  const { p, e, viewport, sensorHeight: sensor } = useLens();
  if (p.kind !== 'perspective') return null;
  const unit = e.conventions.angles.unit;
  const mark = angleUnit(e);
  const aspect = p.aspect ?? viewport.width / viewport.height;
  const forms = lensForms(radians(p.verticalFov), aspect, sensor);
  const set = (lens: CoreLens, gesture: string) =>
    editCamera(
      'change the field of view',
      (c) => {
        if (c.projection.kind === 'perspective') c.projection.verticalFov = tidyDegrees(verticalFovOf(lens, aspect));
      },
      gesture,
    );
  const field = (label: string, form: 'verticalFov' | 'horizontalFov' | 'diagonalFov') => (
    <Line label={label}>
      <Number6
        name={label}
        source={form === 'verticalFov' ? 'lens' : undefined}
        value={tidy(e.toAngle(forms[form]))}
        unit={mark}
        units={anglesIn(unit)}
        step={unit === 'degrees' ? 1 : 0.01}
        onChange={(v, gesture) =>
          form === 'verticalFov'
            ? // As it was typed, so that what cannot be is kept and explained rather than turned into something else.
              editCamera(
                'change the field of view',
                (c) => {
                  if (c.projection.kind === 'perspective') c.projection.verticalFov = tidyDegrees(e.fromAngle(v));
                },
                gesture,
              )
            : set({ [form]: e.fromAngle(v) } as CoreLens, gesture)
        }
        refuse={
          form === 'verticalFov'
            ? undefined
            : (v) =>
                e.fromAngle(v) > 0 && e.fromAngle(v) < Math.PI ? null : 'A field of view lies between 0° and 180°.'
        }
      />
    </Line>
  );
  return (
    <>
      {field('Vertical field', 'verticalFov')}
      {field('Horizontal field', 'horizontalFov')}
      {field('Diagonal field', 'diagonalFov')}
      <Line label="Focal length">
        <Number6
          name="Focal length"
          value={tidy(forms.focalLength)}
          unit="mm"
          units={millimetres}
          refuse={(v) => (v > 0 ? null : 'A focal length is above 0.')}
          onChange={(focalLength, gesture) => set({ focalLength, sensorHeight: sensor }, gesture)}
        />
      </Line>
      <Line label="on a sensor">
        <Number6
          name="Sensor height"
          value={sensor}
          unit="mm high"
          units={millimetres}
          refuse={(v) => (v > 0 ? null : 'A sensor’s height is above 0.')}
          onChange={(sensorHeight, gesture) =>
            // The lens stays and the sensor changes: the field of view follows.
            editCamera(
              'change the sensor',
              (c) => {
                if (c.projection.kind !== 'perspective') return;
                c.sensorHeight = sensorHeight;
                c.projection.verticalFov = tidyDegrees(
                  verticalFovOf({ focalLength: forms.focalLength, sensorHeight }, aspect),
                );
              },
              gesture,
            )
          }
        />
      </Line>
    </>
  );
}

/** Height, width and pixels per unit of an orthographic picture. */
function Sizes() {
  const { p, unit, viewport: v } = useLens();
  if (p.kind !== 'orthographic') return null;
  const aspect = p.aspect ?? v.width / v.height;
  const set = (height: number, gesture: string) =>
    editCamera(
      'change the height seen',
      (c) => {
        if (c.projection.kind === 'orthographic') c.projection.height = tidy(height);
      },
      gesture,
    );
  return (
    <>
      <Line label="Height">
        <Number6 name="Height" source="lens" value={p.height} unit={unit} units={lengths} onChange={set} />
      </Line>
      <Line label="Width">
        <Number6
          name="Width"
          value={tidy(p.height * aspect)}
          unit={unit}
          units={lengths}
          onChange={(width, gesture) => set(width / aspect, gesture)}
        />
      </Line>
      <Line label="Scale">
        <Number6
          name="Pixels per unit"
          value={tidy(v.height / p.height)}
          unit="px per unit"
          units={pixels}
          refuse={(k) => (k > 0 ? null : 'Pixels per unit are above 0.')}
          onChange={(k, gesture) => set(v.height / k, gesture)}
        />
      </Line>
    </>
  );
}

function Far() {
  const { p, unit } = useLens();
  if (p.far === null)
    return (
      <Line label="Far">
        <span>infinite</span>
        <button
          className="plain-button ml-auto"
          onClick={() =>
            editCamera('bring far in', (c) => void (c.projection.far = Math.max(1000, c.projection.near * 100)))
          }
        >
          Make it finite
        </button>
      </Line>
    );
  return (
    <Line label="Far">
      <Number6
        name="Far"
        source="far"
        value={p.far}
        unit={unit}
        units={lengths}
        onChange={(v, gesture) => editCamera('move far', (c) => void (c.projection.far = v), gesture)}
      />
      {p.kind === 'perspective' && (
        <button
          className="plain-button ml-auto"
          onClick={() =>
            editCamera('let far be infinite', (c) => {
              if (c.projection.kind === 'perspective') c.projection.far = null;
            })
          }
        >
          Infinite
        </button>
      )}
    </Line>
  );
}

const edgeNames = ['left', 'right', 'bottom', 'top'] as const;

/**
 * Lens shift, the picture's own aspect, and its edges on the near plane: off-centre extents in
 * three ways.
 */
function Edges() {
  const { p, kind, viewport: v, left, right, bottom, top } = useLens();
  const plain = !p.shift[0] && !p.shift[1] && p.aspect === null;
  const [open, setOpen] = useState(!plain);
  if (!open)
    return (
      <button className="fold" onClick={() => setOpen(true)}>
        Shift, edges and aspect…
      </button>
    );
  const extents = { left, right, bottom, top };
  const own = v.width / v.height;
  const edge = (name: keyof Extents) => (
    <NumberField
      key={name}
      label={name}
      name={`Edge ${name}`}
      width="50%"
      value={tidy(extents[name])}
      step={0.01}
      shown={(n) => figure(n, 3)}
      units={lengths}
      refuse={(n) => {
        const next = { ...extents, [name]: n };
        return next.left < next.right && next.bottom < next.top
          ? null
          : 'Left must stay left of right, and bottom below top.';
      }}
      onChange={(n, gesture) => setEdges({ ...extents, [name]: n }, gesture)}
    />
  );
  return (
    <>
      <Line label="Lens shift">
        {([0, 1] as const).map((i) => (
          <NumberField
            key={i}
            label={i ? 'up' : 'right'}
            name={`Shift ${i ? 'up' : 'right'}`}
            width="50%"
            value={p.shift[i]}
            step={0.01}
            onChange={(n, gesture) => editCamera('shift the lens', (c) => void (c.projection.shift[i] = n), gesture)}
          />
        ))}
      </Line>
      <Line label={kind === 'perspective' ? 'Edges at near' : 'Edges'}>{edgeNames.slice(0, 2).map(edge)}</Line>
      <Line label="">{edgeNames.slice(2).map(edge)}</Line>
      <Line label="Aspect">
        <Number6
          name="Aspect"
          value={tidy(p.aspect ?? own)}
          step={0.01}
          onChange={(n, gesture) => editCamera('change the aspect', (c) => void (c.projection.aspect = n), gesture)}
        />
        {p.aspect === null ? (
          <span className="text-small text-ink2">the viewport’s</span>
        ) : (
          <button
            className="plain-button ml-auto"
            title={`The picture is ${p.aspect > own ? 'squeezed' : 'stretched'} across: its aspect is not the viewport’s, ${figure(own, 4)}.`}
            onClick={() => editCamera('take the viewport’s aspect', (c) => void (c.projection.aspect = null))}
          >
            The viewport’s
          </button>
        )}
      </Line>
    </>
  );
}
