import { flatCamera } from '../../../formats/camera';
import { layerFocus } from './layers';
import { tileSide } from '../../../formats/project';
import { SnapChoice } from '../../sheet/SnapChoice';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { change } from './edits';
import { Num } from './fields';
import type { SeamsFound } from './job';
import { mostLayers, type MotionState } from './kept';

/** A flat world scrolled by fractions of a pixel: its seams, and layers that go with it by a factor. */
export function Pixels() {
  const now = useTaskMoment<MotionState>('motion');
  const { project, slice, points: form } = now;
  const camera = flatCamera(project);
  const found = now.answer<SeamsFound>('seams');
  const size = tileSide(project) * camera.zoom;
  const whole = Math.abs(size - Math.round(size)) < 1e-9;
  return (
    <>
      <SnapChoice snap={camera.snap} />
      <p className="verdict-line" data-testid="seams" aria-live="polite">
        {camera.rotation % 90 !== 0
          ? 'Turned, edges run across pixels: there is nothing to put on whole ones.'
          : !found
            ? 'The camera stands: nothing scrolls.'
            : `A tile is ${figure(size, 3)} pixels${whole ? '' : ', no whole number'}. Drawn each on whole pixels, the scroll left free: ${found.free.frames ? `seams in ${found.free.frames.toLocaleString('en')} of ${found.frames.toLocaleString('en')} frames, up to ${found.free.most} at once` : 'no seams'}. With the scroll on whole pixels: ${found.snapped.frames ? `seams in ${found.snapped.frames.toLocaleString('en')}, up to ${found.snapped.most}` : 'no seams'}; it moves by up to ${figure(found.unevenness, 2)} pixels a frame more or less than it should.`}
      </p>
      {!whole && (
        <p className="text-note leading-4 text-ink2">
          A zoom of {figure(Math.max(1, Math.round(size)) / tileSide(project), 4)} makes a tile{' '}
          {Math.max(1, Math.round(size))} whole pixels: snapped, it has no seams.
        </p>
      )}
      <div className="rule">Layers</div>
      {slice.layers.map((factor, i) => {
        const { layer } = layerFocus(now, factor);
        const [a, b] = form.show([layer[0], layer[1], 0]);
        return (
          <div className="row" key={i}>
            <Num
              name={`Factor of layer ${i + 1}`}
              label={`layer ${i + 1}`}
              source={i === 0 ? 'layers' : undefined!}
              value={factor}
              step={0.05}
              refuse={(v) => (v >= 0 ? null : 'A factor is 0 (it stands with the screen) or more.')}
              set={(v, g) => change('set the factor of a layer', (draft) => void (draft.layers[i] = v), g)}
            />
            <span className="font-mono text-note" title="Where its own focus is">
              {figure(a!, 1)}, {figure(b!, 1)}
            </span>
            <button
              className="text-button ml-auto"
              aria-label={`Take out layer ${i + 1}`}
              onClick={() => change('take out a layer', (draft) => void draft.layers.splice(i, 1))}
            >
              ×
            </button>
          </div>
        );
      })}
      <div className="row">
        <button
          className="plain-button"
          disabled={slice.layers.length >= mostLayers}
          onClick={() => change('add a layer', (draft) => void draft.layers.push(0.5))}
        >
          Add a layer
        </button>
      </div>
      <p className="text-note leading-4 text-ink2">
        A layer moves with the camera by its factor: 1 with the world, 0 with the screen. All layers coincide where the
        track begins. The figures are its own focus, before snapping; its crosses in the picture move as it would.
      </p>
    </>
  );
}
