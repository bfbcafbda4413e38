import { useEffect, useState } from 'react';
import { degrees } from '../../../core/math/angle';
import type { Occlusion } from '../../../core/visibility/occlusion';
import type { ShowingChange } from '../../../core/visibility/showing';
import type { Unseen } from '../../../core/visibility/whyNot';
import { useSelection } from '../../state/selection';
import { useTaskMoment } from '../../state/tempo';
import { editable, figure } from '../../ui/figures';
import { showBody } from './edits';
import { seenNow, uncoveringStepNow, whyNotNow } from './seen';
import { measured } from './Bodies';
import type { VisibilityState } from './kept';

/** The reason in one sentence, with its number. */
export function whySentence(name: string, why: Unseen | null, unit: string, nameOf: (id: string) => string): string {
  if (!why) return `${name} is seen.`;
  const sides = (across: number, upward: number) =>
    [
      across && `${figure(Math.abs(across), 1)} px to the ${across > 0 ? 'right' : 'left'}`,
      upward && `${figure(Math.abs(upward), 1)} px ${upward > 0 ? 'above' : 'below'}`,
    ]
      .filter(Boolean)
      .join(' and ');
  switch (why.kind) {
    case 'behindEye':
      return `${name} lies behind the eye, by ${measured(why.behind, unit)} at least.`;
    case 'beforeNear':
      return `${name} lies before near: its farthest point is ${measured(why.ahead, unit)} ahead.`;
    case 'pastFar':
      return `${name} lies past far: its nearest point is ${measured(why.ahead, unit)} ahead.`;
    case 'offPicture': {
      const off = sides(why.across, why.upward);
      return off ? `${name} lies off the picture, ${off}.` : `${name} passes by a corner of the picture.`;
    }
    case 'noExtent':
      return `${name} is a point: it has a place and no surface to be seen.`;
    case 'tooSmall':
      return `${name} is ${figure(why.pixels, 3)} px wide: it may fall between the middles of pixels.`;
    case 'facingAway':
      return `Every surface of ${name} faces away.`;
    case 'hidden':
      return `${name} is in the frustum and hidden by ${nameOf(why.by)}.`;
  }
}

/** What hides a body, by shares of its rays; null where nothing does. */
export function occlusionSentence({ rays, visible, behind }: Occlusion, nameOf: (id: string) => string): string | null {
  const share = (count: number) => `${Math.max(1, Math.round((count / rays) * 100))} %`;
  const [first, second, ...others] = behind.map(({ body, rays: count }) => `${share(count)} behind ${nameOf(body)}`);
  if (!first) return null;
  const list = [
    first,
    ...(second ? [second] : []),
    ...(others.length ? [`the rest behind ${others.length} more`] : []),
  ];
  return `${visible ? `${share(visible)} of it shows, ` : ''}${list.join(', ')}.`;
}

/** The step that uncovers a hidden body, found when the camera has been at rest for a moment; null until then. */
function useUncoveringStep(id: string | null, isHidden: boolean): ShowingChange | null {
  const now = useTaskMoment<VisibilityState>('visibility');
  const { frame, placed } = now;
  const [found, setFound] = useState<{ of: readonly unknown[]; step: ShowingChange | null } | null>(null);
  const of = [frame, placed, id];
  const isCurrent = found !== null && found.of.every((one, i) => one === of[i]);
  useEffect(() => {
    if (!isHidden || isCurrent || id === null) return;
    const timer = setTimeout(() => setFound({ of, step: uncoveringStepNow(now, id) }), 200);
    return () => clearTimeout(timer);
  });
  return isHidden && isCurrent ? found.step : null;
}

/** A change in words, with its number to every figure that it has. */
export const changeText = (change: ShowingChange, unit: string): string => {
  switch (change.kind) {
    case 'turn':
      return `Turn by ${figure(degrees(change.angle), 2)}°`;
    case 'back':
      return `Move back ${editable(change.by)} ${unit}`;
    case 'widen':
      return `Widen the field of view to ${figure(degrees(change.verticalFov), 2)}°`;
    case 'enlarge':
      return `Raise the height to ${editable(change.height)} ${unit}`;
    case 'near':
      return `Bring near to ${editable(change.near)} ${unit}`;
    case 'far':
      return `Raise far to ${editable(change.far)} ${unit}`;
    case 'step':
      return `Move ${editable(change.by)} ${unit} ${change.direction}`;
    case 'closer':
      return `Move ${editable(change.by)} ${unit} closer`;
  }
};

/** For any body: why nothing of it is seen, and the least changes of the camera that show it. */
export function Why() {
  const now = useTaskMoment<VisibilityState>('visibility');
  const ids = useSelection((state) => state.ids);
  const { project } = now;
  const { unit } = project;
  const id = ids.at(-1) ?? project.probe.body ?? project.bodies[0]?.id ?? null;
  const found = id === null ? null : whyNotNow(now, id);
  const names = new Map(project.bodies.map((body) => [body.id, body.name]));
  const nameOf = (of: string) => names.get(of) ?? of;
  const step = useUncoveringStep(id, found?.why?.kind === 'hidden');
  const covered = found?.occlusion ? occlusionSentence(found.occlusion, nameOf) : null;
  const outside = seenNow(now).find(({ verdict }) => verdict === 'outside');
  const changes = [...(found?.changes ?? []), ...(step ? [step] : [])];
  if (id === null || !found) return <p className="text-note text-ink2">There are no bodies to ask about.</p>;
  return (
    <>
      <div className="row">
        <select
          className="select w-full"
          aria-label="The body that is asked about"
          value={id}
          onChange={({ target }) => useSelection.setState({ ids: [target.value] })}
        >
          {project.bodies.map((body) => (
            <option key={body.id} value={body.id}>
              {body.name}
            </option>
          ))}
        </select>
      </div>
      <div className="result">
        <p className={found.why ? 'none' : 'verdict-line'} data-testid="why">
          {whySentence(nameOf(id), found.why, unit, nameOf)}
        </p>
        {covered && (
          <p className="text-note leading-4 text-ink2" data-testid="why-covered">
            {covered}
          </p>
        )}
        {found.pixels !== null && (
          <div className="line">
            diameter
            <span className="right" data-testid="why-pixels">
              {figure(found.pixels, 1)} px
            </span>
          </div>
        )}
        {changes.length > 0 && (
          <div className="row flex-wrap mt-1" role="group" aria-label="The least change that shows it">
            {changes.map((one) => (
              <button key={one.kind} className="plain-button" data-testid="mend" onClick={() => showBody(one)}>
                {changeText(one, unit)}
              </button>
            ))}
          </div>
        )}
        {found.why?.kind === 'facingAway' && (
          <p className="text-note leading-4 text-ink2">Turning the camera does not show it. Move to its other side.</p>
        )}
      </div>
      {outside && (
        <button className="text-button" onClick={() => useSelection.setState({ ids: [outside.id] })}>
          Ask about {nameOf(outside.id)}, which is outside
        </button>
      )}
    </>
  );
}
