import { letteringFaults, meshColumns, twoLines } from '../../../core/billboard/lettering';
import { signedAxes, type SignedAxis } from '../../../core/conventions/axes';
import { anglesOfBasis } from '../../../core/camera/orientation';
import { affine } from '../../../core/math/mat4';
import { columnsToQuat } from '../../../core/math/quat';
import { negate, type Vec3 } from '../../../core/math/vec3';
import { useTaskMoment } from '../../state/tempo';
import { turnText } from '../../ui/angles';
import { figure } from '../../ui/figures';
import { copy } from '../../ui/notices';
import { WorkingButton } from '../../working/WorkingButton';
import { chosenOf, drawnNow, itemOf, placeOf } from './boards';
import { change } from './edits';
import type { BillboardState } from './kept';
import { faultWords, modeWords, readingSentence } from './words';

/** What turns the chosen board, in the conventions in force and for a mesh of one's own axes. */
export function Result() {
  const now = useTaskMoment<BillboardState>('billboard');
  const { slice, frame, codec: e } = now;
  const board = chosenOf(slice);
  const place = board && placeOf(now, board);
  if (!board || !place) return <p className="none">No board is chosen. Choose or add one under Boards.</p>;
  const item = itemOf(frame, place, board);
  const [normal, up, at] = [item.normal, item.up, place].map((v) => e.toWorld(v)) as [Vec3, Vec3, Vec3];
  const columns = meshColumns(slice.front, slice.up, normal, up);
  const list = columns && e.toList(affine(...columns, at));
  const quaternion = columns && columnsToQuat(...columns);
  const angles = anglesOfBasis({ forward: item.normal, up: item.up, right: negate(item.right) });
  const shown = drawnNow(now).filter(({ chosen }) => chosen);
  const own = shown.find(({ mode }) => mode === board.mode) ?? shown[0];
  const lines = twoLines(board.mode, e.handedness.world);
  const axis = (name: 'front' | 'up', label: string) => (
    <label className="row">
      <span className="label">{label}</span>
      <select
        className="select"
        aria-label={`${label} axis of the mesh`}
        value={slice[name]}
        onChange={({ target }) =>
          change('change the axes of the mesh', (draft) => void (draft[name] = target.value as SignedAxis))
        }
      >
        {signedAxes.map((one) => (
          <option key={one} value={one}>
            {one.replace('-', '\u2212')}
          </option>
        ))}
      </select>
    </label>
  );
  const vector = (v: readonly number[], name: string, below = false) => (
    <div className={below ? undefined : 'line'} key={name}>
      {name}
      <button
        className={below ? 'copy-line below' : 'right copy-line'}
        title={`Copy ${name}`}
        onClick={() => void copy(JSON.stringify(v), name)}
      >
        {v.map((one) => figure(one, 4)).join(', ')}
      </button>
    </div>
  );
  return (
    <>
      <p className="text-note leading-4 text-ink2">
        {board.name}, {modeWords[board.mode].name}.{' '}
        {item.degenerate
          ? 'The eye is straight above its axis: geometry gives no answer, and the camera’s right is kept.'
          : ''}
      </p>
      <div className="axes-row">
        {axis('front', 'Front')}
        {axis('up', 'Up')}
      </div>
      {!columns && (
        <p className="warning">Front and up of a mesh lie along two letters. Choose another for one of them.</p>
      )}
      <div className="result" data-testid="item-axes">
        {vector(e.toWorld(item.right), 'right')}
        {vector(up, 'up')}
        {vector(normal, 'normal')}
        {quaternion && vector(quaternion, 'quaternion, w last', true)}
        <div>
          yaw, pitch, roll along its front <WorkingButton of="facing" />
          <p className="copy-line below" data-testid="item-angles">
            {(['yaw', 'pitch', 'roll'] as const).map((name) => turnText(e, name, angles[name])).join(', ')}
          </p>
        </div>
      </div>
      {list && (
        <>
          <div className="rule">
            From the mesh to the world{' '}
            <button
              className="text-button ml-auto"
              onClick={() => void copy(JSON.stringify(list), 'the matrix of the board')}
            >
              Copy
            </button>
          </div>
          <div className="matrix small" data-testid="item-matrix">
            {affine(...columns!, at).map((v, i) => (
              <span key={i} className={v === 0 ? 'zero' : undefined}>
                {figure(v, 3)}
              </span>
            ))}
          </div>
        </>
      )}
      <div className="rule">
        In two lines{' '}
        <button className="text-button ml-auto" onClick={() => void copy(lines.join('\n'), 'the two lines')}>
          Copy
        </button>
      </div>
      <pre className="code-lines" data-testid="two-lines" tabIndex={0}>
        {lines.join('\n')}
      </pre>
      <div className="rule">Lettering</div>
      <div className="row">
        <span className="label">Wrong</span>
        <select
          className="select"
          aria-label="What the engine gets wrong"
          value={slice.fault ?? ''}
          onChange={({ target }) =>
            change(
              'suppose a fault',
              (draft) => void (draft.fault = letteringFaults.find((one) => one === target.value) ?? null),
            )
          }
        >
          <option value="">nothing</option>
          {letteringFaults.map((fault) => (
            <option key={fault} value={fault}>
              {faultWords[fault].name}
            </option>
          ))}
        </select>
      </div>
      <label className="row check">
        <input
          type="checkbox"
          checked={slice.cull}
          onChange={() => change('leave out back faces or not', (draft) => void (draft.cull = !draft.cull))}
        />
        Back faces are left out
      </label>
      <p className={own && own.reading.causes.length ? 'none' : 'verdict-line'} data-testid="reading">
        {own ? readingSentence(own.reading, own.culled) : 'It is not in the picture.'}
      </p>
    </>
  );
}
