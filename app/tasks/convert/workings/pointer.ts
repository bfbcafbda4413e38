import { pointerSteps } from '../../../../core/convert/pointer';
import { pointerPath } from '../../../../formats/camera';
import { letters, type WorkingBuilder } from '../../../working/builder';
import type { Line } from '../../../working/tex';

/** The pointer's way from the page to NDC, nothing left out. */
export const pointer: WorkingBuilder = ({ project, codec: e }, t, { client }) => {
  if (!client) return [];
  const path = pointerPath(project, e.conventions);
  const steps = pointerSteps(path, client);
  const { viewport: v } = path;
  const up = path.origin === 'bottom-left';
  const picture = { across: steps.picture[0], upward: steps.picture[1], depth01: { near: 1, far: 0 } };
  const ndc = e.toNdc(picture);
  const both = (id: string, says: string, make: (i: 0 | 1) => Pick<Line, 'formula' | 'result'>) =>
    ([0, 1] as const).map((i): Line => ({
      ...{ id: `line-${id}-${letters[i]}`, says: i ? '' : says, name: `${id}_${letters[i]}` },
      ...make(i),
    }));
  const over = [v.width, v.height];
  return [
    ...both('c', 'Page to canvas', (i) => ({
      formula: t.fraction(
        `${t.number(client[i])}-${t.term(path.canvas[i], 'canvas')}`,
        t.number(path.cssScale, 'canvasScale'),
      ),
      result: [steps.css[i]],
    })),
    ...both('b', 'Canvas to framebuffer', (i) => {
      const scaled = `${t.number(steps.css[i], `line-c-${letters[i]}`)}\\cdot ${t.number(path.devicePixelRatio, 'devicePixels')}\\cdot ${t.number(path.framebufferScale, 'framebuffer')}`;
      // Pixels that run upward are counted from the framebuffer's last row.
      const formula = i && up ? `${t.number(v.y + v.height + v.bottom, 'bars')}-${scaled}` : scaled;
      return { formula, result: [steps.framebuffer[i]] };
    }),
    ...both('v', 'Framebuffer to viewport', (i) => ({
      formula: `${t.number(steps.framebuffer[i], `line-b-${letters[i]}`)}-${t.number(i ? (up ? v.bottom : v.y) : v.x, 'bars')}`,
      result: [steps.viewport[i]],
    })),
    ...both('n', 'Viewport to NDC', (i) => {
      const share = `2\\cdot ${t.fraction(t.number(steps.viewport[i], `line-v-${letters[i]}`), t.number(over[i]!, 'viewport'))}`;
      // Either may run upward or downward.
      const turned = i === 1 && (e.conventions.ndc.up === '+y') !== up;
      return { formula: turned ? `1-${share}` : `${share}-1`, result: [ndc[i]] };
    }),
  ];
};
