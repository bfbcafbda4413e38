import type { Task } from '..';
import { ConvertSheet } from './Sheet';

export const convert: Task = { name: 'Convert', route: 'convert', key: '2', Sheet: ConvertSheet };
