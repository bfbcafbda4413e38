import { countFacings, leftOutFaces } from '../../../core/order/paint';
import { mirrorsPicture, windingOf, type PolygonWinding } from '../../../core/order/winding';
import { memo } from '../../state/memo';
import { useTaskMoment } from '../../state/tempo';
import { reasonSentence } from '../../state/wording';
import { Choice } from '../../ui/Choice';
import { counted, figure } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import { change } from './edits';
import { followedPolygon, leftOutBy, leftOutOf, supposedWinding, trianglesOf } from './followed';
import type { OrderState } from './kept';

const facings: Readonly<Record<PolygonWinding['facing'], string>> = {
  front: 'faces the eye',
  back: 'faces away',
  edgeOn: 'is seen edge-on',
};

const facesOf = memo(countFacings);

/** Which way the face runs, and what front-face rule and culling make of it. */
export function Winding() {
  const now = useTaskMoment<OrderState>('order');
  const { slice, frame, codec: e, project } = now;
  const polygon = followedPolygon(now);
  const found = polygon && windingOf(frame, polygon);
  const leftOut = leftOutOf(now);
  const counts = facesOf(frame, trianglesOf(now), leftOut);
  const { frontFace, cull, supposed } = slice;
  const followsBody = slice.followed.kind === 'face';
  const verdict = (rule: OrderState['supposed']): 'drawn' | 'culled' | null => {
    if (!found || found.facing === 'edgeOn') return null;
    const out = leftOutBy({ frontFace, cull, supposed: rule }, frame, followsBody);
    return out === (found.facing === 'front' ? leftOutFaces.front : leftOutFaces.back) ? 'culled' : 'drawn';
  };
  const asItIs = verdict({ mirrored: false, negative: false, yDown: false });
  const shown = verdict(supposed);
  const { area, counterClockwise: runs } = found
    ? supposedWinding(found, supposed, followsBody)
    : { area: null, counterClockwise: null };
  const grows = e.screenGrowsUp;
  const root = slice.followed.kind === 'face' ? now.roots.get(slice.followed.body) : project.probe.body;
  const rootName = project.bodies.find(({ id }) => id === root)?.name ?? 'the probed body';
  const one = (key: keyof OrderState['supposed'], label: string, says: string, disabled = false) => {
    const then = verdict({ ...supposed, [key]: !supposed[key] });
    return (
      <label className="row check" title={says}>
        <input
          type="checkbox"
          disabled={disabled}
          checked={supposed[key]}
          onChange={() => change(`suppose ${label}`, ({ supposed: s }) => void (s[key] = !s[key]))}
        />
        {label}
        <span className="ml-auto text-ink2">
          {cull === 'none' || then === null ? '' : supposed[key] ? `without: ${then}` : `then ${then}`}
        </span>
      </label>
    );
  };
  return (
    <>
      {found && (
        <div className="result">
          <p className="verdict-line" data-testid="winding-verdict">
            {found.facing === 'edgeOn'
              ? 'The face is seen edge-on: it covers nothing, and neither rule says anything of it.'
              : `The face ${facings[found.facing]}${runs === null ? '' : ` and runs ${runs ? 'counter-clockwise' : 'clockwise'} as seen`}: ${
                  cull === 'none'
                    ? 'drawn, as all are'
                    : `${shown ?? ''}, a ${runs === (frontFace === 'counterClockwise') ? 'front' : 'back'} face by the rule`
                }.`}
          </p>
          <div className="line">
            signed area {found.area.ok && <WorkingButton of="signedArea" />}
            <span className="right" data-testid="signed-area">
              {area === null ? '—' : `${figure(area, 1)} px²`}
            </span>
          </div>
          {found.area.ok ? (
            <div className="line">
              in your screen’s numbers
              <span className="right">{figure(grows ? area! : -area!, 1)}</span>
            </div>
          ) : (
            <p className="none">{reasonSentence[found.area.reason]}</p>
          )}
        </div>
      )}
      {!grows && (
        <p className="text-note leading-4 text-ink2">
          Your screen’s y runs down, so the sum over its numbers is negative for what is seen counter-clockwise.
        </p>
      )}
      <div className="row mt-1">
        <span className="label">Front</span>
        <Choice
          name="Front face"
          value={frontFace}
          options={[
            { value: 'counterClockwise', label: 'counter-clockwise' },
            { value: 'clockwise', label: 'clockwise' },
          ]}
          onChange={(value) => change('change the front face', (draft) => void (draft.frontFace = value))}
        />
      </div>
      <div className="row">
        <span className="label">Cull</span>
        <Choice
          name="Cull"
          value={cull}
          options={[
            { value: 'none', label: 'none' },
            { value: 'back', label: 'back' },
            { value: 'front', label: 'front' },
          ]}
          onChange={(value) => change('change the culling', (draft) => void (draft.cull = value))}
        />
      </div>
      <div className="rule">
        Suppose <em>shown, not made</em>
      </div>
      {one(
        'mirrored',
        'a mirrored view',
        'One axis of the view or of the extents negated: the picture is turned over, and so is every winding',
      )}
      {one(
        'negative',
        `a negative scale on ${rootName}`,
        'One scale negated on this node: all that hangs on it runs the other way, and nothing else',
        root === null || root === undefined,
      )}
      {one(
        'yDown',
        'y of the framebuffer the other way',
        'A picture drawn upside down, into a texture for example: what is counter-clockwise in it is clockwise as the rule counts',
      )}
      {asItIs !== shown && (
        <p className="text-note leading-4 text-ink2" data-testid="supposed">
          As it is, the face is {asItIs}; as supposed, {shown}.
        </p>
      )}
      {mirrorsPicture(frame) && (
        <p className="warning">The camera’s extents are mirrored: every face runs the other way on the screen.</p>
      )}
      <div className="rule">
        All bodies <em>{counted(counts.count, 'face', 'faces')}</em>
      </div>
      <div className="row wide">
        <span className="label">Drawn</span>
        <span className="ml-auto font-mono" data-testid="faces-drawn">
          {counts.drawn.toLocaleString('en')}
        </span>
      </div>
      <div className="row wide">
        <span className="label">Culled</span>
        <span className="ml-auto font-mono" data-testid="faces-culled">
          {counts.culled.toLocaleString('en')}
        </span>
      </div>
      {counts.edgeOn > 0 && (
        <div className="row wide">
          <span className="label">Edge-on</span>
          <span className="ml-auto font-mono">{counts.edgeOn.toLocaleString('en')}</span>
        </div>
      )}
      {cull !== 'none' && (
        <p className="text-note leading-4 text-ink2">
          Culled faces that would be seen are ruled in the picture as ghosts.
        </p>
      )}
    </>
  );
}
