import { lazy } from 'react';
import type { Task } from '..';

export const convert: Task = {
  name: 'Convert',
  route: 'convert',
  key: '2',
  Sheet: lazy(() => import('./Sheet').then(({ ConvertSheet }) => ({ default: ConvertSheet }))),
};
