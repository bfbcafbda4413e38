import { fieldsOf } from '../../sheet/Field';
import { visibilityState } from './kept';

/** The fields of Visibility's state. */
export const Field = fieldsOf('visibility', visibilityState);
