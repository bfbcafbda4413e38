import type { CameraFrame } from '../../../../core/camera/frame';
import { pictureToWorld } from '../../../../core/convert/unproject';
import { pixelToPicture, rayThrough, worldToViewRuf } from '../../../../core/convert/project';
import { depthChoiceOf } from '../../../../formats/camera';
import type { Moment } from '../../../state/moment';
import { four, letters, scaleLines, type WorkingBuilder } from '../../../working/builder';
import type { Line, Typesetter } from '../../../working/tex';

/* Workings of the chain, forward and back. */

/** The chain from the body's own space to the screen. */
export const screen: WorkingBuilder = ({ chain, codec: e, frame, project, placed }, t) => {
  if (!chain.ok) return [];
  const { local, world, viewRuf, clip, picture } = chain.value;
  const own = project.probe.body === null ? undefined : placed.get(project.probe.body);
  const at = e.toWorld(world);
  const view = e.toView(viewRuf);
  const c = e.toClip(clip);
  const lines: Line[] = [];
  if (own)
    lines.push({
      ...{ id: 'line-world', says: 'Local to world', name: 'p' },
      formula: t.product(
        t.matrix(e.toModel(own.toWorld), () => 'body'),
        four(e.toWorld(local), t, 'probe'),
      ),
      result: [...at, 1],
    });
  const probed = own ? 'line-world' : 'probe';
  lines.push({
    ...{ id: 'line-view', says: 'World to view', name: 'v' },
    formula: t.product(
      t.matrix(e.matrix(frame, 'view'), (_, column) => (column === 3 ? 'eye' : 'gaze')),
      four(at, t, probed),
    ),
    result: [...view, 1],
  });
  lines.push({
    ...{ id: 'line-clip', says: 'View to clip', name: 'c' },
    formula: t.product(
      t.matrix(e.matrix(frame, 'projection'), () => 'lens'),
      four(view, t, 'line-view'),
    ),
    result: c,
  });
  if (!picture.ok) return lines;
  const n = e.toNdc(picture.value);
  for (const i of [0, 1, 2])
    lines.push({
      ...{ id: `line-ndc-${letters[i]}`, says: i === 0 ? 'Divide by w' : '', name: `n_${letters[i]}` },
      formula: t.fraction(t.number(c[i]!, 'line-clip'), t.number(c[3], 'line-clip')),
      result: [n[i]!],
    });
  return [...lines, ...viewportLines(n, e, frame, t, 'line-ndc'), ...depthLine(n[2], e, t)];
};

/** NDC to the pixels of the screen. */
function viewportLines(
  n: readonly number[],
  e: Moment['codec'],
  { viewport: v }: Pick<CameraFrame, 'viewport'>,
  t: Typesetter,
  from: string,
): Line[] {
  const whole = e.conventions.screen.pixelCentre === 0;
  const line = (i: 0 | 1, origin: number, size: number, flipped: boolean): Line => {
    const ndc = t.number(n[i]!, `${from}-${letters[i]}`);
    const over = flipped ? `1-${t.term(n[i]!, `${from}-${letters[i]}`)}` : `${ndc}+1`;
    const formula = `${origin ? `${t.number(origin, 'viewport')}+` : ''}${t.fraction(over, '2')}\\cdot ${t.number(size, 'viewport')}${whole ? '-0.5' : ''}`;
    const share = (flipped ? 1 - n[i]! : n[i]! + 1) / 2;
    return {
      ...{ id: `line-screen-${letters[i]}`, says: i === 0 ? 'Viewport' : '', name: letters[i]! },
      formula,
      result: [origin + share * size - (whole ? 0.5 : 0)],
    };
  };
  return [line(0, v.x, v.width, false), line(1, v.y, v.height, !e.screenFollowsNdc)];
}

function depthLine(z: number, { conventions: { ndc } }: Moment['codec'], t: Typesetter): Line[] {
  const [low, high] = [Math.min(ndc.near, ndc.far), Math.max(ndc.near, ndc.far)];
  return [
    {
      ...{ id: 'line-depth', says: 'Depth, 0 to 1', name: 'd' },
      formula: t.fraction(
        `${t.number(z, 'line-ndc-z')}-${t.term(low, 'conventions')}`,
        `${t.number(high, 'conventions')}-${t.term(low, 'conventions')}`,
      ),
      result: [(z - low) / (high - low)],
    },
  ];
}

/** A pixel to the world: its ray, how far along it, and the point. */
export const back: WorkingBuilder = ({ frame, codec: e, project }, t) => {
  const [across, upward] = pixelToPicture(frame, project.back.pixel);
  const found = pictureToWorld(frame, across, upward, depthChoiceOf(project.back));
  const ray = rayThrough(frame, across, upward);
  if (!found.ok) return [];
  const { viewport: v } = frame;
  const [px, py] = e.toScreen(v, across, upward);
  const half = e.conventions.screen.pixelCentre === 0 ? '+0.5' : '';
  const n = e.toNdc({ across, upward, depth01: { near: 1, far: 0 } });
  const share = (value: number, origin: number, size: number) =>
    t.fraction(
      `${t.number(value, 'pixel')}${half}${origin ? `-${t.term(origin, 'viewport')}` : ''}`,
      t.number(size, 'viewport'),
    );
  const down = share(py, v.y, v.height);
  const lines: Line[] = [
    {
      ...{ id: 'line-ndc-x', says: 'Pixel to NDC', name: 'n_x' },
      formula: `2\\cdot ${share(px, v.x, v.width)}-1`,
      result: [n[0]],
    },
    {
      ...{ id: 'line-ndc-y', says: '', name: 'n_y' },
      formula: e.screenFollowsNdc ? `2\\cdot ${down}-1` : `1-2\\cdot ${down}`,
      result: [n[1]],
    },
  ];
  const f = worldToViewRuf(frame, found.value)[2];
  const range = f * ray.rangePerAhead;
  const origin = e.toWorld(ray.origin);
  const direction = e.toWorld(ray.direction);
  const world = e.toWorld(found.value);
  lines.push({
    ...{ id: 'line-range', says: 'Along the ray', name: 's' },
    formula: `${t.number(f, 'back')}\\cdot ${t.number(ray.rangePerAhead, 'line-ndc-x')}`,
    result: [range],
  });
  for (const i of [0, 1, 2])
    lines.push({
      ...{ id: `line-point-${letters[i]}`, says: i === 0 ? 'The point' : '', name: `p_${letters[i]}` },
      formula: `${t.number(origin[i]!, 'eye')}+${t.number(range, 'line-range')}\\cdot ${t.term(direction[i]!, 'line-ndc-x')}`,
      result: [world[i]!],
    });
  return lines;
};

/** Pixels that one unit spans at the probe. */
export const scale: WorkingBuilder = ({ frame, chain }, t) => {
  if (!chain.ok) return [];
  const f = chain.value.viewRuf[2];
  return frame.kind === 'perspective' && !(f > 0) ? [] : scaleLines(frame, f, t);
};
