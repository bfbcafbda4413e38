import { degrees } from '../../../core/math/angle';
import { eased } from '../../../core/motion/path';
import { worldToViewRuf } from '../../../core/convert/project';
import type { Moment } from '../../state/moment';
import { taskMoment } from '../../state/slices';
import type { WorkingBuilder } from '../../working/builder';
import type { WorkingTable } from '../../working/builder';
import { dollyDistances, trackOf } from './journey';
import type { MotionState } from './kept';

/** The field of view of a dolly zoom at the moment, from the height that it holds. */
const dolly: WorkingBuilder = (facts, t) => {
  const now = taskMoment<MotionState>('motion', facts as Moment);
  const travel = trackOf(now)?.travel;
  const { rest, time, codec: e } = now;
  if (travel?.kind !== 'dollyZoom' || rest.kind !== 'perspective') return [];
  const ahead = worldToViewRuf(rest, travel.target)[2];
  if (!(ahead > 0)) return [];
  const { extents: x, near } = rest;
  const height = (Math.abs(x.top - x.bottom) * ahead) / near;
  const [first, last] = dollyDistances(travel, rest);
  const share = time >= travel.duration ? 1 : eased(travel.ease, time / travel.duration);
  const far = first + (last - first) * share;
  const fov = 2 * Math.atan(height / (2 * far));
  const inDegrees = e.conventions.angles.unit === 'degrees';
  return [
    {
      ...{ id: 'line-height', says: 'The height seen at the target, from the camera at rest', name: 'H' },
      formula: `(${t.number(x.top, 'lens')}-${t.term(x.bottom, 'lens')})\\cdot ${t.fraction(t.number(ahead, 'target'), t.number(near, 'near'))}`,
      result: [height],
    },
    {
      ...{ id: 'line-far', says: 'The distance at this moment', name: 'd' },
      formula: `${t.number(first, 'distances')}+(${t.number(last, 'distances')}-${t.term(first, 'distances')})\\cdot ${t.number(share, 'duration')}`,
      result: [far],
    },
    {
      ...{ id: 'line-fov', says: 'The field of view that keeps the height', name: '\\varphi ' },
      formula: `2\\cdot \\operatorname{atan}\\left(${t.fraction(t.number(height, 'line-height'), `2\\cdot ${t.number(far, 'line-far')}`)}\\right)${inDegrees ? '\\cdot \\tfrac{180}{\\pi }' : ''}`,
      result: [inDegrees ? degrees(fov) : fov],
    },
  ];
};

/** What is left of a way after the half-lives of a second: what a follower's half-life says. */
const left: WorkingBuilder = (facts, t) => {
  const now = taskMoment<MotionState>('motion', facts as Moment);
  const travel = trackOf(now)?.travel;
  if (travel?.kind !== 'follow' || !(travel.halfLife > 0)) return [];
  const frames = now.slice.framesPerSecond;
  return [
    {
      ...{ id: 'line-rate', says: 'The rate at which it closes in', name: 'k' },
      formula: t.fraction('\\ln 2', t.number(travel.halfLife, 'halfLife')),
      result: [Math.LN2 / travel.halfLife],
    },
    {
      ...{ id: 'line-left', says: 'The share of what was left that is left after a frame, at this rate of frames', name: 'q' }, // prettier-ignore
      formula: `2^{-\\frac{1}{${t.number(frames, 'frames')}\\cdot ${t.number(travel.halfLife, 'halfLife')}}}`,
      result: [2 ** (-1 / (frames * travel.halfLife))],
    },
  ];
};

/** The workings of Motion, by the names that its sheet asks for. */
export const workings: WorkingTable = { dolly, left };
