import './PopOver.css';
import { Popover } from 'radix-ui';
import { useRef, type ComponentProps, type RefObject } from 'react';

/**
 * For what closes and gives the focus back: it comes a moment after the closing, and whoever has
 * gone on to a field by then keeps it. Otherwise what is typed there falls between the two.
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

/**
 * Has the pop-over of what is opened on the worksheet stand beside it, at the height of its trigger:
 * over the pictures, not over what it explains.
 */
export function BesideSheet({ trigger }: { trigger: RefObject<HTMLElement | null> }) {
  const place = useRef({
    getBoundingClientRect: () => {
      const own = trigger.current!.getBoundingClientRect();
      const sheet = trigger.current!.closest('.sheet')?.getBoundingClientRect();
      return sheet ? new DOMRect(sheet.left, own.top, sheet.width, own.height) : own;
    },
  });
  return <Popover.Anchor virtualRef={place} />;
}
