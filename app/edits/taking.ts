/** What came by file, drop or paste, as bytes, and as text where they are text. */
export interface Given {
  readonly name: string;
  readonly bytes: Uint8Array;
  readonly text: string | null;
}

/** Offers imported data to the tasks before the application takes it. Resolves to whether a task took it. */
export type Taking = (given: Given) => Promise<boolean>;

let taking: Taking = () => Promise.resolve(false);
/** Registers how data is offered to the tasks: once, when the page begins. */
export const installTaking = (take: Taking): void => void (taking = take);

export const offerToTasks = (given: Given): Promise<boolean> => taking(given);
