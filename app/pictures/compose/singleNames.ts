/** The pictures that follow from a project alone. `plan` is the map of a 2D world. */
export const singlePictures = ['camera', 'plan', 'section', 'outside'] as const;
export type SinglePicture = (typeof singlePictures)[number];
