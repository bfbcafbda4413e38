import { useEffect } from 'react';
import {
  projectPoint,
  rayThrough,
  divide,
  viewRufToClip,
  worldToViewRuf,
  pixelToPicture,
  depth01Of,
} from '../../../core/convert/project';
import { pictureToWorld } from '../../../core/convert/unproject';
import { distance, type Vec3 } from '../../../core/math/vec3';
import type { CameraFrame } from '../../../core/camera/frame';
import type { ConventionCodec } from '../../../core/conventions/codec';
import { letterOf } from '../../../core/conventions/axes';
import { depthChoiceOf } from '../../../formats/camera';
import type { Project } from '../../../formats/project';
import { useMoment } from '../../state/tempo';
import { edit } from '../../state/document';
import { meaning } from '../../ui/Term';
import { copy } from '../../ui/notices';
import { Radio, Radios } from '../../ui/Radios';
import { figure, plain } from '../../ui/figures';
import { Lozenge } from '../../ui/icons';
import { NumberField } from '../../sheet/NumberField';
import { lengths, pixels } from '../../ui/parseNumber';
import { startFollowing, stopFollowing, useFollow } from '../../state/follow';
import { FormulasButton } from '../../working/FormulasButton';
import { WorkingButton } from '../../working/WorkingButton';
import { countsOf, pastLimit, reasonSentence, screenUnit } from '../../state/wording';

type Route = Project['back']['route'];
const routes: readonly { route: Route; label: string; aside?: string; says?: string }[] = [
  { route: 'depth', label: 'Depth value' },
  { route: 'ahead', label: 'Distance ahead', says: meaning('ahead') },
  { route: 'range', label: 'Range', aside: 'along the ray', says: meaning('range') },
  { route: 'plane', label: 'Plane', aside: 'level, at' },
];

/**
 * What each of the four ways would have to say for one point: depth 0 at near and 1 at far,
 * distances, a height.
 */
function equalValues(frame: CameraFrame, point: Vec3, across: number, upward: number): Record<Route, number | null> {
  const parts = worldToViewRuf(frame, point);
  const picture = divide(frame, viewRufToClip(frame, parts));
  return {
    depth: picture.ok ? picture.value.depth01.far : null,
    ahead: parts[2],
    range: distance(point, rayThrough(frame, across, upward).origin),
    plane: point[1],
  };
}

/** A way's value as the conventions in force write it, and back. */
function shownValue(route: Route, e: ConventionCodec): { show: (v: number) => number; read: (v: number) => number } {
  const same = (v: number) => v;
  if (route === 'depth') return { show: (v) => e.toDepth(depth01Of(v)), read: (v) => e.fromDepth(v).far };
  if (route !== 'plane') return { show: same, read: same };
  return { show: e.toHeight, read: e.fromHeight };
}

export function BackToWorld() {
  const { project, frame, codec: e, flat, points } = useMoment();
  const { back } = project;
  const [across, upward] = pixelToPicture(frame, back.pixel);
  const pixel = e.toScreen(frame.viewport, across, upward);
  // A flat world has one point under a pixel.
  const found = pictureToWorld(frame, across, upward, flat ? { kind: 'ahead', ahead: 0 } : depthChoiceOf(back));
  const values = found.ok ? equalValues(frame, found.value, across, upward) : null;
  const up = letterOf(e.conventions.world.up);
  const past = found.ok && !flat ? pastLimit(frame, worldToViewRuf(frame, found.value)[2]) : null;
  const again = found.ok ? projectPoint(frame, found.value).picture : null;
  const ray = rayThrough(frame, across, upward);

  const setPixel = (i: 0 | 1, value: number, gesture: string) => {
    const next: [number, number] = [pixel[0], pixel[1]];
    next[i] = value;
    const [a, u] = e.fromScreen(frame.viewport, next);
    edit(
      'change the pixel',
      (draft) => {
        draft.back.pixel = [((a + 1) / 2) * frame.viewport.width, ((1 - u) / 2) * frame.viewport.height];
      },
      gesture,
    );
  };
  const choose = (route: Route) => {
    const value = values?.[route];
    edit('choose the depth by another way', (draft) => {
      draft.back = {
        ...draft.back,
        route,
        value: value ?? (route === 'depth' ? 0.5 : route === 'plane' ? 0 : frame.near * 2 + 1),
      };
    });
  };
  const probeHere = () =>
    found.ok &&
    edit('put the probe at the pixel', (draft) => {
      draft.probe = { body: null, drive: { rung: 'world', value: [...found.value] } };
    });

  return (
    <>
      <div className="row">
        <span className="label">Pixel</span>
        {([0, 1] as const).map((i) => (
          <NumberField
            key={i}
            label={'xy'[i]!}
            name={`Pixel ${'xy'[i]}`}
            source={i === 0 ? 'pixel' : undefined}
            width={80}
            value={pixel[i]}
            shown={(v) => figure(v, 2)}
            units={pixels}
            onChange={(v, g) => setPixel(i, v, g)}
          />
        ))}
        <span className="text-note leading-3 text-ink2">
          {screenUnit(e)},
          <br />
          {countsOf(e)}
        </span>
      </div>
      {!flat && (
        <Radios name="How far" value={back.route} onChange={choose}>
          {routes.map(({ route, label, aside, says }) => {
            const on = back.route === route;
            const { show, read } = shownValue(route, e);
            const value = on ? back.value : (values?.[route] ?? null);
            return (
              <div key={route} className={`route${on ? ' is-on' : ''}`}>
                <Radio className="pick" value={route}>
                  <Lozenge />
                  <span title={says}>
                    {label} {aside && <span className="aside">{aside}</span>}
                  </span>
                </Radio>
                {route === 'plane' && <span className="sym">{up} =</span>}
                {on ? (
                  <NumberField
                    name={label}
                    source="back"
                    width={92}
                    value={show(back.value)}
                    shown={(v) => figure(v, route === 'depth' ? 6 : 4)}
                    step={route === 'depth' ? 0.001 : 1}
                    units={route === 'depth' ? {} : lengths}
                    onChange={(v, gesture) =>
                      edit(
                        'change the depth',
                        (draft) => {
                          draft.back.value = read(v);
                        },
                        gesture,
                      )
                    }
                  />
                ) : (
                  <span className="value">
                    {value === null ? 'none' : figure(show(value), route === 'depth' ? 6 : 4)}
                  </span>
                )}
              </div>
            );
          })}
        </Radios>
      )}
      <div className="work mt-1 border-t border-hair pt-1">
        {flat ? null : values?.ahead !== null && values?.range !== null && values ? (
          <>
            range = {figure(values.ahead!, 4)} × {figure(ray.rangePerAhead, 5)} = {figure(values.range!, 2)}
            <br />
          </>
        ) : null}
        {flat ? (
          <>
            <span className="sym">p</span> = <span className="sym">R</span>
            <sup>−1</sup>·(pixel − <span className="sym">t</span>) ÷ zoom
          </>
        ) : (
          <>
            <span className="sym">p</span> = {frame.kind === 'perspective' ? 'eye' : 'pixel on the eye plane'} + range ×
            ray
          </>
        )}
      </div>
      <Follow />
      <div className="result">
        {found.ok ? (
          <>
            <button
              className="big"
              title="Copy the point"
              onClick={() => void copy(`[${points.show(found.value).map(plain).join(', ')}]`, 'the world point')}
            >
              <output data-testid="result-world">
                {points
                  .show(found.value)
                  .map((v) => figure(v, 2))
                  .join(', ')}
              </output>
              <u>World</u>
            </button>
            {past !== null && (
              <p className="text-note leading-4 text-plum" data-testid="result-past">
                {past}
              </p>
            )}
            {again?.ok && (
              <div className="line">
                sent forward again
                <span className="right">
                  {e
                    .toScreen(frame.viewport, again.value.across, again.value.upward)
                    .map((v) => figure(v, 2))
                    .join(', ')}
                </span>
              </div>
            )}
            <div className="line flex-wrap">
              <button className="plain-button" onClick={probeHere}>
                Put the probe here
              </button>
              <WorkingButton of={flat ? 'flatBack' : 'back'} />
              <FormulasButton of="back" />
            </div>
          </>
        ) : (
          <div className="none" data-testid="result-none">
            {reasonSentence[found.reason]}
          </div>
        )}
      </div>
    </>
  );
}

/** Has the probe, or the body that is probed, follow the pointer at the chosen depth. */
function Follow() {
  const { gesture, body } = useFollow();
  const following = gesture !== null;
  const { flat, project } = useMoment();
  const probed = project.bodies.find(({ id }) => id === (body ?? project.probe.body));
  useEffect(() => {
    if (!following) return;
    const stop = (event: KeyboardEvent) => event.key === 'Escape' && stopFollowing();
    window.addEventListener('keydown', stop);
    return () => window.removeEventListener('keydown', stop);
  }, [following]);
  useEffect(() => stopFollowing, []);
  return (
    <>
      <div className="row flex-wrap">
        {!body && (
          <button
            className="plain-button"
            aria-pressed={following}
            title="The probe follows the pointer in the picture"
            onClick={() => (following ? stopFollowing() : startFollowing())}
          >
            {following
              ? 'Let the probe go'
              : flat
                ? 'Have the probe follow the pointer'
                : 'Keep the probe at this depth'}
          </button>
        )}
        {probed && (body || !following) && (
          <button
            className="plain-button"
            aria-pressed={following}
            title={`${probed.name} goes with the pointer in the picture${flat ? '' : ', at this depth'}`}
            onClick={() => (following ? stopFollowing() : startFollowing(probed.id))}
          >
            {following ? `Let ${probed.name} go` : `Hold ${probed.name} there`}
          </button>
        )}
      </div>
      {following && (
        <p className="text-small leading-4 text-ink2">it follows the pointer; a click or Escape leaves it there</p>
      )}
    </>
  );
}
