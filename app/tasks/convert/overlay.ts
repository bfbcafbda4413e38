import { edgeMarker } from '../../../core/convert/edgeMarker';
import { pictureToPixel } from '../../../core/convert/project';
import { pictureToClient, pointerSteps } from '../../../core/convert/pointer';
import { pointerPath } from '../../../formats/camera';
import { n2, type Mark } from '../../pictures/marks';
import { familyBounds, markerInset } from '../../state/bounds';
import { readPointer } from '../../state/reading';
import type { Overlay } from '../overlays';

/** What Convert adds to the camera's picture: rectangles of bodies, the marker of a probe that is off it, and where the pointer would be by an engine that leaves steps out. */
export const convertOverlay: Overlay = {
  standing(situation, { scale, selected }) {
    const { frame, chain, project, roots } = situation;
    const own = project.probe.body === null ? [] : [roots.get(project.probe.body)!];
    const marks = [...new Set([...own, ...selected])].flatMap((id): Mark[] => {
      const found = familyBounds(situation, id);
      if (!found.ok) return [];
      const { min, max } = found.value;
      const [a, b] = [pictureToPixel(frame, min[0], max[1]), pictureToPixel(frame, max[0], min[1])];
      const [width, height] = [(b[0] - a[0]) * scale, (b[1] - a[1]) * scale];
      const d = `M${n2(a[0] * scale)} ${n2(a[1] * scale)}h${n2(width)}v${n2(height)}h${n2(-width)}Z`;
      return [{ className: 'body-rectangle', d }];
    });
    const marker = chain.ok && chain.value.outside.length ? edgeMarker(frame, chain.value.world, markerInset) : null;
    if (marker)
      marks.push({
        className: 'edge-marker',
        d: 'M11 0L-6 -7L-2 0L-6 7Z',
        x: marker.pixel[0] * scale,
        y: marker.pixel[1] * scale,
        turn: (Math.atan2(-marker.direction[1], marker.direction[0]) * 180) / Math.PI,
      });
    return marks;
  },

  withPointer(situation, { scale, css, folds }) {
    const { project, frame } = situation;
    const { leftOut } = project.pointer;
    if (!folds.pointer || !leftOut.length) return [];
    const path = pointerPath(project);
    const client = pictureToClient(path, readPointer(situation, css).picture);
    const [x, y] = pictureToPixel(frame, ...pointerSteps(path, client, new Set(leftOut)).picture).map(
      (v) => v * scale,
    ) as [number, number];
    return [
      { className: 'engine-way', d: `M${n2(css[0] * scale)} ${n2(css[1] * scale)}L${n2(x)} ${n2(y)}` },
      { className: 'engine-pointer', d: `M${n2(x - 7)} ${n2(y)}h14M${n2(x)} ${n2(y - 7)}v14` },
    ];
  },
};
