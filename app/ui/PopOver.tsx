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

/** The box of an element of the worksheet, as wide as the worksheet: what opens at its side covers no other field. */
export function sheetRow(element: HTMLElement): DOMRect {
  const own = element.getBoundingClientRect();
  const sheet = element.closest('.sheet')?.getBoundingClientRect();
  return sheet ? new DOMRect(sheet.left, own.top, sheet.width, own.height) : own;
}

/** Anchors a pop-over beside the worksheet at the height of its trigger. */
export function BesideSheet({ trigger }: { trigger: RefObject<HTMLElement | null> }) {
  const place = useRef({ getBoundingClientRect: () => sheetRow(trigger.current!) });
  return <Popover.Anchor virtualRef={place} />;
}
