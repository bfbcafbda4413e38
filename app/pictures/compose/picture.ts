import type { CameraFrame } from '../../../core/camera/frame';
import type { AngularSpan } from '../../../core/order/angular';
import type { Vec3 } from '../../../core/math/vec3';
import type { Tiles } from '../../../formats/project';
import type { Poses } from '../../state/moment';
import type { BodyPainting, GpuLayer } from './contract';

/** One picture on the canvas: where, seen by which frame, drawn how. */
export interface Picture {
  readonly name: string;
  /** In CSS pixels from the canvas's top left corner. */
  readonly rect: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly frame: CameraFrame;
  readonly style: 'main' | 'plan' | 'section';
  /**
   * A flat world: its ground is a map of tiles, if it has one; bodies lie in layers, so far apart.
   */
  readonly flat?: { readonly tiles: Tiles | null; readonly step: number };
  readonly ground: number | null;
  /** The family that stands in front of the rest, at full strength; the rest is dimmed. */
  readonly emphasis: number | null;
  readonly light: Vec3;
  /** Where the bodies stand in it. */
  readonly poses: Poses;
  readonly layers: readonly GpuLayer[];
  /** A tint a body, or null; another number says that they are others. */
  readonly tints: Uint8Array | null;
  /** How the bodies are painted, if otherwise than all faces by a depth buffer. */
  readonly painting: BodyPainting | null;
  /** For a picture of equal angles: which they are; `frame` is the plane that holds them all. */
  readonly span?: AngularSpan;
}
