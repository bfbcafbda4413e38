import { OrderList } from '../../sheet/OrderList';
import { useTaskMoment } from '../../state/tempo';
import { counted } from '../../ui/figures';
import { moveEvent } from './edits';
import { Field } from './fields';
import { useFound } from './Points';
import type { FrameEvent, SpawnState } from './kept';
import { spawnsFirst } from './terms';

const eventWords: Readonly<Record<FrameEvent, string>> = {
  input: 'input is read',
  camera: 'the camera moves',
  spawn: 'bodies appear',
  draw: 'the picture is drawn',
};

/** The first frame: bodies that appear out of sight of a camera that has not moved yet. */
export function First() {
  const now = useTaskMoment<SpawnState>('spawn');
  const { slice } = now;
  const found = useFound();
  const inView = found ? found.inView.reduce((sum, v) => sum + v, 0) : 0;
  const { order } = slice.first;
  return (
    <>
      <div className="row">
        <span className="label">Moves by</span>
        <Field at={['first', 'moved']} />
      </div>
      <OrderList
        name="Events of the first frame"
        items={order.map((key) => ({ key, label: eventWords[key] }))}
        onMove={moveEvent}
      />
      <p className={inView ? 'none' : 'verdict-line'} data-testid="first" aria-live="polite">
        {!found
          ? 'Making points…'
          : spawnsFirst(slice)
            ? inView
              ? `${counted(inView, 'body appears', 'bodies appear')} in view: they were put out of sight of the camera as it was before it moved. Drag “bodies appear” behind “the camera moves”.`
              : 'Bodies appear before the camera moves; this time none of them comes into view by it.'
            : inView
              ? `${counted(inView, 'body is', 'bodies are')} in view though the camera has moved: the method does not ask what is seen.`
              : 'Bodies appear when the camera has moved: none is in view.'}
      </p>
      {now.stale.spawns && !spawnsFirst(slice) && (
        <p className="warning">
          By the order of a frame in Motion bodies appear before the camera has moved, every frame: the region is that
          of the camera before.
        </p>
      )}
      {order.indexOf('draw') < order.indexOf('spawn') && (
        <p className="warning">What appears after the picture is drawn is seen one frame later.</p>
      )}
    </>
  );
}
