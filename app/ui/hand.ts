/** Keeps the page's `data-held` in step with whether the hand holds something: whatever is dragged has captured the pointer. Its value is the picture that the thing is in. */
export function followHand(): void {
  document.addEventListener('gotpointercapture', ({ target }) => {
    document.documentElement.dataset.held =
      (target as Element).closest<HTMLElement>('[data-picture]')?.dataset.picture ?? '';
  });
  document.addEventListener('lostpointercapture', () => delete document.documentElement.dataset.held);
}

/** Whether the hand holds something now. */
export const handHolds = (): boolean => document.documentElement.hasAttribute('data-held');

/** The picture that it holds something in: its name, or null. */
export const heldPicture = (): string | null =>
  (typeof document !== 'undefined' && document.documentElement.dataset.held) || null;
