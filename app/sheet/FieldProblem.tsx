import { Popover } from 'radix-ui';
import type { RefObject } from 'react';
import { BesideSheet } from '../ui/PopOver';

/**
 * The sentence why an entry was rejected: beside the worksheet at the height of the field, elsewhere under it. It takes
 * no pointer and no focus.
 */
export default function FieldProblem({ text, field }: { text: string | null; field: RefObject<HTMLElement | null> }) {
  const isOnSheet = field.current?.closest('.sheet');
  return (
    <Popover.Root open>
      {isOnSheet ? <BesideSheet trigger={field} /> : <Popover.Anchor virtualRef={field as RefObject<HTMLElement>} />}
      <Popover.Portal>
        <Popover.Content
          className="field-problem"
          role="alert"
          side={isOnSheet ? 'left' : 'bottom'}
          align={isOnSheet ? 'center' : 'start'}
          sideOffset={4}
          collisionPadding={8}
          hideWhenDetached
          onOpenAutoFocus={(event) => event.preventDefault()}
          onCloseAutoFocus={(event) => event.preventDefault()}
        >
          {text}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
