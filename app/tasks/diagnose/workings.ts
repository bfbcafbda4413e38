import { worldToPixel } from '../../../core/convert/project';
import { transform } from '../../../core/math/mat4';
import type { Vec4 } from '../../../core/math/vec3';
import type { Moment } from '../../state/moment';
import { taskMoment } from '../../state/slices';
import type { WorkingBuilder } from '../../working/builder';
import type { WorkingTable } from '../../working/builder';
import type { Line } from '../../working/tex';
import { engineOf, enginePixel } from './engine';
import type { DiagnoseState } from './kept';

/** The probe through the engine's numbers: its clip coordinates, its pixel, and how far that is from the right one. */
const off: WorkingBuilder = (facts, t) => {
  const now = taskMoment<DiagnoseState>('diagnose', facts as Moment);
  const { chain, frame, codec: e } = now;
  const engine = now.flat ? null : engineOf(now);
  if (!engine?.whole || !chain.ok) return [];
  const { world } = chain.value;
  const whole = e.toViewProjection(engine.whole);
  const p = e.toWorld(world);
  const clip = transform(whole, [p[0], p[1], p[2], 1] as Vec4);
  const lines = (['x', 'y', 'w'] as const).map((letter): Line => {
    const row = { x: 0, y: 1, w: 3 }[letter];
    return {
      ...{ id: `line-${letter}`, says: letter === 'x' ? 'The probe by the engine’s view projection: clip' : '', name: letter }, // prettier-ignore
      formula: [0, 1, 2].map((i) => `${t.term(whole[4 * row + i]!, 'pasted')}\\cdot ${t.term(p[i]!, 'probe')}`).join('+') + `+${t.term(whole[4 * row + 3]!, 'pasted')}`, // prettier-ignore
      result: [clip[row]!],
    };
  });
  const given = enginePixel(engine.whole, frame, world);
  const right = worldToPixel(frame, world);
  if (!given || !right.ok) return lines;
  const there = (pixel: readonly [number, number]) => {
    const { x, y, width, height } = frame.viewport;
    return e.toScreen(frame.viewport, ((pixel[0] - x) / width) * 2 - 1, 1 - ((pixel[1] - y) / height) * 2);
  };
  const [a, b] = [there(given), there(right.value)];
  return [
    ...lines,
    {
      ...{ id: 'line-ndc', says: 'Divided by w', name: '(x, y)_{ndc}' },
      formula: `${t.vector([t.number(clip[0], 'line-x'), t.number(clip[1], 'line-y')])} / ${t.term(clip[3], 'line-w')}`,
      result: [clip[0] / clip[3], clip[1] / clip[3]],
    },
    {
      ...{ id: 'line-off', says: 'On the screen, less where the camera has it', name: 'd' },
      formula: `\\sqrt{(${t.number(a[0], 'line-ndc')}-${t.term(b[0], 'probe')})^2+(${t.number(a[1], 'line-ndc')}-${t.term(b[1], 'probe')})^2}`,
      result: [Math.hypot(a[0] - b[0], a[1] - b[1])],
    },
  ];
};

/** The workings of Diagnose, by the names that its sheet asks for. */
export const workings: WorkingTable = { off };
