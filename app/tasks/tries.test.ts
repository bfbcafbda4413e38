import { describe, expect, it } from 'vitest';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { saltmarrowQuay } from '../../demo/quay';
import type { Project } from '../../formats/project';
import { momentOf } from '../state/moment';
import { tries as ofConvert } from './convert/tries';
import { tries as ofFrame } from './frame/tries';
import { tries as ofMotion } from './motion/tries';
import { tries as ofOrder } from './order/tries';

const demos = { harbour: saltmarrow(), chart: saltmarrowChart(), quay: saltmarrowQuay() };
const all = (guide: keyof typeof demos) => [ofFrame, ofConvert, ofOrder, ofMotion].flatMap((tries) => tries[guide]);

describe('the things to try', () => {
  it.each(['harbour', 'chart', 'quay'] as const)('are none of them done when the %s opens', (guide) => {
    const now = momentOf(demos[guide]);
    expect(all(guide).filter((one) => one.done(now))).toEqual([]);
  });

  it.each([
    ['harbour', 'chart'],
    ['chart', 'harbour'],
    ['quay', 'harbour'],
    ['harbour', 'quay'],
  ] as const)('of the %s ask nothing that the world of the %s cannot answer', (guide, other) => {
    const now = momentOf({ ...demos[other], guide } as Project);
    for (const one of all(guide)) expect(typeof one.done(now)).toBe('boolean');
  });

  it('are done by what they say', () => {
    const { camera, conventions, probe } = demos.harbour;
    if (camera.kind !== '3d' || camera.projection.kind !== 'perspective') throw new Error();
    const changed: Readonly<Record<string, Partial<Project>>> = {
      'harbour-turn': { camera: { ...camera, orientation: { kind: 'angles', yaw: 120, pitch: 0, roll: 0 } } },
      'harbour-near': { camera: { ...camera, projection: { ...camera.projection, near: 200 } } },
      'harbour-click': { probe: { ...probe, body: 'buoy-1' } },
      'harbour-drive': { probe: { ...probe, drive: { rung: 'screen', value: [640, 300, 0.9] } } },
      'harbour-conventions': { conventions: { ...conventions, ndc: { up: '-y', near: 0, far: 1 } } },
    };
    for (const [id, change] of Object.entries(changed)) {
      const done = all('harbour').filter((one) => one.done(momentOf({ ...demos.harbour, ...change })));
      expect(done.map((one) => one.id)).toContain(id);
    }
  });
});
