import type { Task } from '..';
import { FrameSheet } from './Sheet';

export const frame: Task = { name: 'Frame', route: 'frame', key: '1', Sheet: FrameSheet, corner: 'screens' };
