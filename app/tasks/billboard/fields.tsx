import { fieldsOf } from '../../sheet/Field';
import { billboardState } from './kept';

/** The fields of Billboard's state. */
export const Field = fieldsOf('billboard', billboardState);
