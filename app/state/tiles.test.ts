import { describe, expect, it } from 'vitest';
import { emptyFlat } from '../../demo/empty';
import { momentOf } from './moment';
import { edgesAlong } from './tiles';

describe('the edges of tiles on the screen', () => {
  it('are those of the tile side that was typed, where there is no map', () => {
    const project = { ...emptyFlat('empty'), tile: { size: 16, texels: 16 } };
    const along = edgesAlong(momentOf(project), 0, 4)!;
    const steps = along.edges.slice(1).map(({ at }, i) => at - along.edges[i]!.at);
    expect(steps).toEqual([16, 16, 16]);
  });
});
