import type { Slice } from '../../state/slices';
import { deliverState, type DeliverState } from './kept';

export const slice: Slice<DeliverState> = {
  version: 1,
  schema: deliverState,
  initial: () => ({
    language: 'C++',
    parts: ['camera', 'worldToScreen', 'screenToWorld', 'ray', 'visible', 'matrices'],
    number: 'double',
    naming: 'own',
    constants: true,
    count: 24,
    seed: 1,
    wide: 1920,
  }),
};
