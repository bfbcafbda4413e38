import { parallaxFocus } from '../../../core/motion/follow';
import type { Vec2 } from '../../../core/math/vec3';
import { flatCamera } from '../../../formats/camera';
import { journeyFocus } from '../../state/journey';
import type { Moment } from '../../state/moment';

/** The focus of a 2D camera and that of a parallax layer, before snapping. */
export interface LayerFocus {
  readonly focus: Vec2;
  readonly layer: Vec2;
}

/** Returns the focus of a parallax layer at the time. All layers coincide where the track begins. */
export function layerFocus({ project, journey, time }: Omit<Moment, 'slice'>, factor: number): LayerFocus {
  const origin = flatCamera(project).focus;
  const focus = journey?.kind === 'flat' ? journeyFocus(journey, time) : origin;
  return { focus, layer: parallaxFocus(focus, origin, factor) };
}
