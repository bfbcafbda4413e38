/* Opening a task from where no component is: what came in by paste or drop is shown by whose it is. */

let go: (route: string) => void = () => undefined;
/** Has tasks opened by a way of its own from now on: once, when the page stands. */
export const installOpening = (open: (route: string) => void): void => void (go = open);
export const openTask = (route: string): void => go(route);
