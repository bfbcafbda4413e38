import { fieldsOf } from '../../sheet/Field';
import { spawnState } from './kept';

/** The fields of Spawn's state. */
export const Field = fieldsOf('spawn', spawnState);
