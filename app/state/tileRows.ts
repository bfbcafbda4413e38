import type { Tiles } from '../../formats/project';

/** Returns the number of rows of a tile map. */
export const rowsOf = ({ values, columns }: Tiles): number => values.length / columns;
