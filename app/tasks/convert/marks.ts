import { degrees } from '../../../core/math/angle';
import { edgeMarker } from '../../../core/convert/edgeMarker';
import { pictureToPixel } from '../../../core/convert/project';
import { pictureToClient, pointerSteps } from '../../../core/convert/pointer';
import { pointerPath } from '../../../formats/camera';
import { heldPixel } from '../../../core/convert/held';
import type { ConvertState } from './state';
import type { Marks, PictureView, Word } from '../../pictures/compose/contract';
import { bodyRectangles } from '../../pictures/compose/bodyRectangles';
import { n2, type Mark } from '../../pictures/compose/marks';
import { markerInset } from '../../state/bounds';
import { readPointer } from '../../state/pointerReadout';

/** The points that are held to the screen, as squares in a picture of it. */
const heldIn = ({ frame, scale }: PictureView, { held }: ConvertState, half: number) =>
  held.map(({ name, hold, inset }) => {
    const at = heldPixel(frame.viewport, hold, inset).map((v) => v * scale) as [number, number];
    const side = n2(2 * half);
    const mark: Mark = { ink: 'path-key', d: `M${n2(at[0] - half)} ${n2(at[1] - half)}h${side}v${side}h-${side}Z` };
    return { name, at, mark };
  });

/**
 * What Convert adds to the camera's picture: rectangles of bodies, the marker of a probe that is
 * off it, and where the pointer would be by an engine that leaves steps out.
 */
export const marks: Marks<ConvertState> = {
  derive: () => undefined,

  standing(view, now, _, { selected }) {
    const { name, scale } = view;
    if (name.startsWith('screen/')) return { marks: heldIn(view, now.slice, 2.5).map(({ mark }) => mark) };
    if (name !== 'camera') return {};
    const { frame, chain, project, roots } = now;
    const own = project.probe.body === null ? [] : [roots.get(project.probe.body)!];
    const found = bodyRectangles(view, now, [...new Set([...own, ...selected])]);
    const marker = chain.ok && chain.value.outside.length ? edgeMarker(frame, chain.value.world, markerInset) : null;
    if (marker)
      found.push({
        ink: 'edge-marker',
        d: 'M11 0L-6 -7L-2 0L-6 7Z',
        x: marker.pixel[0] * scale,
        y: marker.pixel[1] * scale,
        turn: degrees(Math.atan2(-marker.direction[1], marker.direction[0])),
      });
    const held = heldIn(view, now.slice, 4);
    return {
      marks: [...found, ...held.map(({ mark }) => mark)],
      words: held.map(({ at, name }): Word => ({ text: name, at, ink: 'name', priority: 5 })),
    };
  },

  underPointer({ name, scale }, css, now, _, { folds }) {
    const { project, frame } = now;
    const { leftOut } = project.pointer;
    if (name !== 'camera' || !folds.pointer || !leftOut.length) return [];
    const path = pointerPath(project, now.codec.conventions);
    const client = pictureToClient(path, readPointer(now, css).picture);
    const [x, y] = pictureToPixel(frame, ...pointerSteps(path, client, new Set(leftOut)).picture).map(
      (v) => v * scale,
    ) as [number, number];
    return [
      { ink: 'engine-way', d: `M${n2(css[0] * scale)} ${n2(css[1] * scale)}L${n2(x)} ${n2(y)}` },
      { ink: 'engine-pointer', d: `M${n2(x - 7)} ${n2(y)}h14M${n2(x)} ${n2(y - 7)}v14` },
    ];
  },
};
