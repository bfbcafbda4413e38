import type { PlacedBody } from '../../core/bodies/body';
import { remembered } from './memo';
import type { Moment } from './moment';

const list = remembered((placed: Moment['placed']): readonly PlacedBody[] => [...placed.values()]);

/** The bodies as a list, in the project's order: the same list for as long as they stand so. */
export const bodiesOf = ({ placed }: Pick<Moment, 'placed'>): readonly PlacedBody[] => list(placed);
