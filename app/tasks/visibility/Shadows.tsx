import { Casters, castersNow } from '../../sheet/Casters';
import { useTaskMoment } from '../../state/tempo';
import { counted } from '../../ui/figures';
import type { VisibilityState } from './kept';

/** Bodies out of view whose shadow is in it. */
export function Shadows() {
  const rows = castersNow(useTaskMoment<VisibilityState>('visibility'));
  const alone = rows.filter(({ seen }) => seen === 'shadow alone').length;
  return (
    <>
      <p className="verdict-line" data-testid="shadows">
        {alone
          ? `${counted(alone, 'body is', 'bodies are')} out of the picture, and ${alone === 1 ? 'its shadow is' : 'their shadows are'} in it.`
          : 'No shadow is in the picture without its body.'}
      </p>
      <p className="text-note leading-4 text-ink2">
        A shadow pass that draws what the camera sees would lose these; a camera that draws what a shadow pass has drawn
        would draw them for nothing. Each view decides for itself. The light is that of Order.
      </p>
      <Casters name="casters in view" rows={rows} />
    </>
  );
}
