import type { ComponentType } from 'react';
import type { Corner } from '../state/settings';
import { convert } from './convert';
import { frame } from './frame';

/** Something that a task can do by name. */
export interface TaskCommand {
  readonly name: string;
  readonly run: () => void;
  /** The only kind of world that it has a meaning in, if not both. */
  readonly world?: 'space' | 'flat';
}

export interface Task {
  readonly name: string;
  readonly route: string;
  /** The digit that opens it. */
  readonly key: string;
  /** What the task shows, or null while it does not exist. */
  readonly Sheet: ComponentType | null;
  /** What stands beside the plan until the user wants something else there. */
  readonly corner?: Corner;
  /** What it can do by name, from any task. */
  readonly commands?: readonly TaskCommand[];
}

const planned = (name: string, key: string): Task => ({ name, route: name.toLowerCase(), key, Sheet: null });

/** The tasks in the order in which the work is done. A new task is a folder and its line here, and one in `overlays.ts` if it draws on the camera's picture. */
export const tasks: readonly Task[] = [
  frame,
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
