import type { WorkingTable } from '../../../working/builder';
import { back, scale, screen } from './chain';
import { edges, flat, flatBack } from './flat';
import { between, normal } from './nodes';
import { derivative, edge, rectangle } from './onScreen';
import { pointer } from './pointer';

/** The workings of Convert, by the names that its sheet asks for. */
export const workings: WorkingTable = {
  ...{ screen, back, scale, flat, flatBack },
  ...{ edge, derivative, rectangle, edges, normal, between, pointer },
};
