/** What the hand holds: in which picture it is, if in one, and whether it is a thing that can be taken elsewhere rather than the picture itself. */
export interface Held {
  readonly picture: string | null;
  readonly grip: boolean;
}

let held: Held | null = null;

/** Keeps in step with whether the hand holds something: whatever is dragged has captured the pointer. */
export function followHand(): void {
  document.addEventListener('gotpointercapture', ({ target }) => {
    const element = target as Element;
    held = {
      picture: element.closest<HTMLElement>('[data-picture]')?.dataset.picture ?? null,
      grip: element.closest('.handle') !== null,
    };
    document.documentElement.dataset.held = '';
  });
  document.addEventListener('lostpointercapture', () => {
    held = null;
    delete document.documentElement.dataset.held;
  });
}

/** What it holds now, or null. */
export const handHolds = (): Held | null => held;
