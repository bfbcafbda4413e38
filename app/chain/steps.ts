/** The steps of the Chain from one space to the next. */
export type Step = 'model' | 'view' | 'projection' | 'divide' | 'viewport' | 'camera';

/** What each step opens. */
export const stepTitles: Readonly<Record<Step, string>> = {
  model: 'model matrix',
  view: 'view matrix',
  projection: 'projection matrix',
  divide: 'division by w',
  viewport: 'viewport mapping',
  camera: 'world to pixel matrix',
};
