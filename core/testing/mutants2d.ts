import type { FaultName2d } from '../diagnose/engine2d';

/* Faults of 2D cameras put into the exported code: each an edit of its source in the small language. */

type Edit = (source: string) => string;

/** Changes every place that matches. An edit that matches nothing is a fault of the test. */
const replace =
  (from: RegExp, to: string): Edit =>
  (source) => {
    const made = source.replace(from, to);
    if (made === source) throw new Error(`nothing matches ${from}`);
    return made;
  };

/** Edits that commit each fault which a camera with rotation, a moved viewport and rounding can have. */
export const mutants2d: Readonly<Partial<Record<FaultName2d, Edit>>> = {
  yFlipped: (source) => replace(/let (yx|yy) = (-?)/g, 'let $1 = 0 - $2')(source),
  xFlipped: (source) => replace(/let (xx|xy) = (-?)/g, 'let $1 = 0 - $2')(source),
  rotationNegated: replace(/let angle = /, 'let angle = 0 - '),
  rotationInOtherUnit: replace(/let angle = camera\.rotation( \* pi \/ 180)?;/, 'let angle = camera.rotation * OTHER;'),
  rotationMissing: replace(/let angle = .*;/, 'let angle = 0 * camera.rotation;'),
  focusNotNegated: replace(/anchor\.([xy]) - \(/g, 'anchor.$1 + ('),
  focusMissing: replace(/(camera|frame)\.anchor\.([xy]) - \(/g, '$1.anchor.$2 - 0 * ('),
  anchorMissing: replace(/(camera|frame)\.anchor\.([xy]) - \(/g, '0 * $1.anchor.$2 - ('),
  anchorFromOtherEdge: replace(/(camera|frame)\.anchor\.y - \(/g, '2 * $1.origin.y + $1.size.y - $1.anchor.y - ('),
  zoomInverted: replace(/let ([sc]) = camera\.zoom \*/g, 'let $1 = 1 / camera.zoom *'),
  zoomMissing: replace(/let ([sc]) = camera\.zoom \*/g, 'let $1 = 1 *'),
  snapMissing: replace(/snap_(?:round|floor)\((x|y)\)/g, '$1'),
  viewportOffset: replace(/(point\.y \+ frame\.shift\.)([xy])/g, '$1$2 - frame.origin.$2'),
};
