import { fieldsOf } from '../../sheet/Field';
import { orderState } from './kept';

/** The fields of Order's state. */
export const Field = fieldsOf('order', orderState);
