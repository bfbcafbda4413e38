/** How a task is found: its address (also its folder), its name, and the key that opens it. */
export interface TaskName {
  readonly route: string;
  readonly name: string;
  /** A digit or a letter. */
  readonly key: string;
}

/**
 * All tasks, in the order of the strip. A task is a folder of this name and one line here: page,
 * painter and job worker load the folder's modules when the task is opened.
 */
export const taskNames: readonly TaskName[] = [
  { route: 'frame', name: 'Frame', key: '1' },
  { route: 'convert', name: 'Convert', key: '2' },
  { route: 'order', name: 'Order', key: '3' },
  { route: 'pick', name: 'Pick', key: '4' },
  { route: 'visibility', name: 'Visibility', key: '5' },
  { route: 'billboard', name: 'Billboard', key: '6' },
  { route: 'spawn', name: 'Spawn', key: '7' },
  { route: 'motion', name: 'Motion', key: '8' },
  { route: 'diagnose', name: 'Diagnose', key: '9' },
  { route: 'deliver', name: 'Deliver', key: '0' },
];
