/** Keeps the page's `data-held` in step with whether the hand holds something: whatever is dragged has captured the pointer. */
export function followHand(): void {
  document.addEventListener('gotpointercapture', ({ target }) => {
    document.documentElement.dataset.held = (target as Element).closest('.centre') ? 'picture' : '';
  });
  document.addEventListener('lostpointercapture', () => delete document.documentElement.dataset.held);
}

/** Whether the hand holds something now. */
export const handHolds = (): boolean => document.documentElement.hasAttribute('data-held');

/** Whether it is something in a picture. */
export const handHoldsPicture = (): boolean =>
  typeof document !== 'undefined' && document.documentElement.dataset.held === 'picture';
