/**
 * The tasks that there are. A task is a folder of this name and a line here: page, painter and job
 * worker each build their table from it.
 */
export const taskNames: readonly string[] = [
  'frame',
  'convert',
  'order',
  'pick',
  'visibility',
  'billboard',
  'spawn',
  'motion',
  'diagnose',
  'deliver',
];
