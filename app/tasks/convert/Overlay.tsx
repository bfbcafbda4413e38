import { edgeMarker } from '../../../core/convert/edgeMarker';
import { pictureToPixel } from '../../../core/convert/project';
import { pictureToClient, pointerSteps } from '../../../core/convert/pointer';
import { pointerPath } from '../../../formats/camera';
import { familyBounds } from '../../state/bounds';
import { useSituation } from '../../state/derive';
import { readPointer, usePointer } from '../../state/pointer';
import { useSelection } from '../../state/selection';
import { useSettings } from '../../state/settings';
import { n2 } from '../../pictures/marks';
import type { OverlayProps } from '..';
import { markerInset } from '../../state/bounds';

/** What Convert adds to the camera's picture: rectangles of bodies, the marker of a probe that is off it, and where an engine's pointer would be. */
export function ConvertOverlay({ scale }: OverlayProps) {
  const situation = useSituation();
  const { frame, chain, project, roots } = situation;
  const ids = useSelection((state) => state.ids);
  const own = project.probe.body === null ? [] : [roots.get(project.probe.body)!];
  const rectangles = [...new Set([...own, ...ids])].flatMap((id) => {
    const found = familyBounds(situation, id);
    if (!found.ok) return [];
    const { min, max } = found.value;
    const [a, b] = [pictureToPixel(frame, min[0], max[1]), pictureToPixel(frame, max[0], min[1])];
    return [{ id, x: a[0] * scale, y: a[1] * scale, width: (b[0] - a[0]) * scale, height: (b[1] - a[1]) * scale }];
  });
  const marker = chain.ok && chain.value.outside.length ? edgeMarker(frame, chain.value.world, markerInset) : null;
  return (
    <g pointerEvents="none">
      {rectangles.map(({ id, x, y, width, height }) => (
        <path key={id} className="body-rectangle" d={`M${n2(x)} ${n2(y)}h${n2(width)}v${n2(height)}h${n2(-width)}Z`} />
      ))}
      {marker && (
        <path
          className="edge-marker"
          d="M11 0L-6 -7L-2 0L-6 7Z"
          transform={`translate(${n2(marker.pixel[0] * scale)} ${n2(marker.pixel[1] * scale)}) rotate(${n2((Math.atan2(-marker.direction[1], marker.direction[0]) * 180) / Math.PI)})`}
        />
      )}
      <EnginePointer scale={scale} />
    </g>
  );
}

/** Where the pointer would be by an engine that leaves steps out. Follows the pointer, so it is drawn by itself. */
function EnginePointer({ scale }: { scale: number }) {
  const situation = useSituation();
  const { project, frame } = situation;
  const open = useSettings((state) => state.folds.pointer ?? false);
  const css = usePointer((state) => state.css);
  const { leftOut } = project.pointer;
  if (!open || !leftOut.length) return null;
  const path = pointerPath(project);
  const client = pictureToClient(path, readPointer(situation, css).picture);
  const [x, y] = pictureToPixel(frame, ...pointerSteps(path, client, new Set(leftOut)).picture).map(
    (v) => v * scale,
  ) as [number, number];
  const [fx, fy] = [css[0] * scale, css[1] * scale];
  return (
    <>
      <path className="engine-way" d={`M${n2(fx)} ${n2(fy)}L${n2(x)} ${n2(y)}`} />
      <path className="engine-pointer" d={`M${n2(x - 7)} ${n2(y)}h14M${n2(x)} ${n2(y - 7)}v14`} />
    </>
  );
}
