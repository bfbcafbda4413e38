import { Popover } from 'radix-ui';
import type { ComponentProps } from 'react';

/**
 * For what closes and gives the focus back: it comes a moment after the closing, and whoever has gone on to a field by then keeps it. Otherwise what is typed there
 * falls between the two.
 */
export function leaveFocus(event: Event): void {
  const { activeElement } = document;
  if (activeElement && activeElement !== document.body) event.preventDefault();
}

/** What a pop-over shows, laid over the page beside its trigger and kept within the window. */
export const PopOver = ({ className = '', ...props }: ComponentProps<typeof Popover.Content>) => (
  <Popover.Portal>
    <Popover.Content
      className={`pop ${className}`}
      sideOffset={6}
      collisionPadding={8}
      onCloseAutoFocus={leaveFocus}
      {...props}
    />
  </Popover.Portal>
);
