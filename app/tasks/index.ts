import type { ComponentType } from 'react';
import { convert } from './convert';

export interface Task {
  readonly name: string;
  readonly route: string;
  /** The digit that opens it. */
  readonly key: string;
  /** What the task shows, or null while it does not exist. */
  readonly Sheet: ComponentType | null;
}

const planned = (name: string, key: string): Task => ({ name, route: name.toLowerCase(), key, Sheet: null });

/** The tasks in the order in which the work is done. A new task is a folder and its line here. */
export const tasks: readonly Task[] = [
  planned('Frame', '1'),
  convert,
  planned('Order', '3'),
  planned('Pick', '4'),
  planned('Visibility', '5'),
  planned('Billboard', '6'),
  planned('Spawn', '7'),
  planned('Motion', '8'),
  planned('Diagnose', '9'),
  planned('Deliver', '0'),
];
