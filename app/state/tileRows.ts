import type { Tiles } from '../../formats/project';

/** How many rows a map has. */
export const rowsOf = ({ values, columns }: Tiles): number => values.length / columns;
