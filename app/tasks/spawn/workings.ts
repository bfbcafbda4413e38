import type { Vec2 } from '../../../core/math/vec3';
import { firstTouch, velocityAt } from '../../../core/spawn/firstSeen';
import { distanceToPolygon } from '../../../core/spawn/region';
import type { Moment } from '../../state/moment';
import { taskMoment } from '../../state/slices';
import type { WorkingBuilder } from '../../working/builder';
import type { WorkingTable } from '../../working/builder';
import type { SpawnState } from './kept';
import { surfaceOf, termsNow } from './terms';

/** The probe, taken for a body on the surface: how far it is from what is seen, and how soon it is seen. */
const untilSeen: WorkingBuilder = (facts, t) => {
  const now = taskMoment<SpawnState>('spawn', facts as Moment);
  const terms = termsNow(now);
  const { slice, chain } = now;
  if (typeof terms === 'string' || !chain.ok) return [];
  const place = surfaceOf(now).coordinates(chain.value.world);
  const motion =
    slice.coming === 'towards' ? { towards: terms.middle, speed: slice.speed } : { velocity: slice.velocity };
  const body = velocityAt(place, motion);
  const apart = distanceToPolygon(terms.seen, place);
  const relative: Vec2 = [body[0] - slice.camera[0], body[1] - slice.camera[1]];
  const speed = Math.hypot(...relative);
  const touch = firstTouch(terms.seen, place, slice.radius, body, slice.camera, slice.within);
  return [
    {
      ...{ id: 'line-speed', says: 'Its speed as the view has it, the camera’s motion taken off', name: 'u' },
      formula: `\\sqrt{(${t.number(body[0], 'speed')}-${t.term(slice.camera[0], 'speed')})^2+(${t.number(body[1], 'speed')}-${t.term(slice.camera[1], 'speed')})^2}`,
      result: [speed],
    },
    {
      ...{ id: 'line-apart', says: 'The probe’s distance from what is seen, less the radius', name: 'd' },
      formula: `${t.number(apart, 'probe')}-${t.number(slice.radius, 'padding')}`,
      result: [apart - slice.radius],
    },
    ...(touch.ok && touch.value > 0
      ? [
          {
            ...{ id: 'line-way', says: 'How far it goes until it touches, along its way', name: 'w' },
            formula: `${t.number(touch.value, 'speed')}\\cdot ${t.number(speed, 'line-speed')}`,
            result: [touch.value * speed],
          },
        ]
      : []),
  ];
};

/** The workings of Spawn, by the names that its sheet asks for. */
export const workings: WorkingTable = { untilSeen };
