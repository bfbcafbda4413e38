import { useState } from 'react';
import { affineOf, invertAffine, sensesOf, snapAffine, type Affine2d } from '../../core/request/affine2d';
import { matrixNumbers } from '../../core/request/affineMatrices';
import { camera2dNow } from '../state/cameraNow';
import type { Moment } from '../state/moment';
import { Choice } from '../ui/Choice';
import { angleSuffix } from '../ui/angles';
import { matrixTexts } from '../edits/matrixTexts';
import { figure } from '../ui/figures';
import { CopyMatrix } from './CopyMatrix';

const forms = { '2×3': 6, '3×3': 9, '4×4': 16 } as const;
type Form = keyof typeof forms;
const directions = {
  worldToPixel: { label: 'A', title: 'world to pixel' },
  pixelToWorld: { label: 'A⁻¹', title: 'pixel to world' },
} as const;
type Direction = keyof typeof directions;

/** The rows of a matrix as it stands in a formula: the transpose where vectors are rows. */
function writtenRows(of: Affine2d, form: Form, isRow: boolean): readonly (readonly number[])[] {
  const list = matrixNumbers(of, forms[form], isRow);
  const across = form === '2×3' ? (isRow ? 2 : 3) : Math.sqrt(list.length);
  return Array.from({ length: list.length / across }, (_, i) => list.slice(i * across, (i + 1) * across));
}

/** The matrix of a 2D camera from the world to pixels, and back, with the formula that it comes from. */
export function CameraMatrix({ undone, moment }: { undone: boolean; moment: Moment }) {
  const [direction, setDirection] = useState<Direction>(undone ? 'pixelToWorld' : 'worldToPixel');
  const [form, setForm] = useState<Form>('2×3');
  const { codec: e } = moment;
  const { vectors, storage } = e.conventions.matrix;
  const camera = camera2dNow(moment);
  const forward = affineOf(camera, e);
  const shown = direction === 'worldToPixel' ? forward : invertAffine(forward);
  if (!shown) return <p>This camera has no matrix: its zoom is out of range.</p>;
  const rows = writtenRows(shown, form, vectors === 'row');
  const list = matrixNumbers(shown, forms[form], e.listsColumns);
  const { title } = directions[direction];
  return (
    <>
      <div className="flex gap-2">
        <Choice
          name="Which matrix"
          value={direction}
          options={(Object.keys(directions) as Direction[]).map((value) => ({ value, ...directions[value] }))}
          onChange={setDirection}
        />
        <Choice
          name="Form"
          value={form}
          options={(Object.keys(forms) as Form[]).map((value) => ({ value, label: value }))}
          onChange={setForm}
        />
      </div>
      <h3 className="mt-1">{title[0]!.toUpperCase() + title.slice(1)}</h3>
      <p>{vectors === 'row' ? 'p′ = p·A, rows multiply from the left' : 'p′ = A·p, columns multiply from the right'}</p>
      <div
        className="matrix"
        data-testid="matrix"
        style={{ gridTemplateColumns: `repeat(${rows[0]!.length}, minmax(0, 1fr))` }}
      >
        {rows.flat().map((value, i) => (
          <span key={i} className={value === 0 ? 'zero' : undefined}>
            {figure(value, Math.abs(value) >= 1e4 ? 2 : 6)}
          </span>
        ))}
      </div>
      <CopyMatrix texts={matrixTexts(`the matrix ${title}`, rows, list, { vectors, storage })} />
      <Formula moment={moment} />
    </>
  );
} // prettier-ignore

/** The formula of a 2D camera with its own numbers. */
function Formula({ moment }: { moment: Moment }) {
  const { codec: e } = moment;
  const camera = camera2dNow(moment);
  const { right, up, rows } = sensesOf(e);
  const { focus, anchor, zoom, rotation, snap } = camera;
  const pair = ([x, y]: readonly [number, number]) => `(${figure(x, 2)}, ${figure(y, 2)})`;
  // The linear part without zoom and rotation: F times the signs of the world's axes.
  const signs = [right, rows * up].map((sign) => (sign < 0 ? '−1' : '1'));
  const snappedTo = snapAffine(affineOf(camera, e), snap);
  return (
    <div className="work mt-1" data-testid="camera-formula">
      <div>pixel = zoom · F · R(θ) · (p − focus) + anchor</div>
      <div>zoom = {figure(zoom, 4)} px per unit</div>
      <div>
        F = diag({signs[0]}, {signs[1]}): world {e.conventions.world.right} right and {e.conventions.world.up} up, rows from the{' '}
        {rows < 0 ? 'top' : 'bottom'}
      </div>
      <div>
        θ = {figure(rotation, 2)}
        {angleSuffix(e)}, counter-clockwise as seen
      </div>
      <div>
        focus = {pair(focus)}, anchor = {pair(anchor)}
      </div>
      {snap !== 'none' && <div>then the translation is snapped ({snap}) to {pair([snappedTo.tx, snappedTo.ty])}</div>}
    </div>
  );
} // prettier-ignore
