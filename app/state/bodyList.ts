import type { PlacedBody } from '../../core/bodies/body';
import { remembered } from './memo';

type Placed = ReadonlyMap<string, PlacedBody>;
const list = remembered((placed: Placed): readonly PlacedBody[] => [...placed.values()]);

/** Returns the bodies as a list in the project's order: the same list while they are the same. */
export const bodiesOf = ({ placed }: { readonly placed: Placed }): readonly PlacedBody[] => list(placed);
