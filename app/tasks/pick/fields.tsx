import { fieldsOf } from '../../sheet/Field';
import { pickState } from './kept';

/** The fields of Pick's state. */
export const Field = fieldsOf('pick', pickState);
