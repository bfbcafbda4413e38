import * as z from 'zod';
import type { BillboardMode } from '../../../core/billboard/billboard';
import { letteringFaults } from '../../../core/billboard/lettering';
import { signedAxes, type SignedAxis } from '../../../core/conventions/axes';
import { radians } from '../../../core/math/angle';
import {
  angle,
  choice,
  direction,
  flag,
  group,
  id,
  length,
  list,
  name,
  optional,
  pixels,
  point,
  ratio,
  yawRate,
} from '../../../core/quantities/quantity';

export const modes = ['viewPlane', 'eyePoint', 'axisEye', 'axisView'] as const satisfies readonly BillboardMode[];
export const mostBoards = 200;

const mode = choice(modes);
const axis = choice(signedAxes as [SignedAxis, ...SignedAxis[]]);

/** What Billboard keeps in the project. */
export const billboardState = group({
  boards: list(
    group({
      id: id(),
      name: name(),
      /** The text on the board. */
      text: z.string().max(40),
      /** The body that carries it, or null. Its place is relative to that body's origin, or in the world. */
      body: z.string().nullable(),
      at: point({ label: 'Board', decimals: 1, source: 'board' }),
      size: z.tuple([
        length({ label: 'Board width', short: 'width', above: 0 }),
        length({ label: 'Board height', short: 'height', above: 0 }),
      ]),
      mode,
      /** The axis it turns about, in the modes with one. */
      axis: direction({ label: 'Axis of the board', decimals: 2, source: 'axis', world: '3d' }),
    }),
    { max: mostBoards },
  ),
  /** The board that the sheet is about. */
  chosen: z.string().nullable(),
  /** The modes of which the chosen board has a copy, and whether the copies are drawn apart. */
  shown: list(mode, { max: modes.length }),
  apart: flag(),
  /** The two modes that are compared over the picture, and by how much they differ along the line; null for none. */
  pair: z.tuple([mode, mode]),
  contour: optional(angle({ label: 'Difference along the line', short: '', above: 0, max: Math.PI, world: '3d' })),
  /** The axes of the mesh that is turned, in the conventions in force. */
  front: axis,
  up: axis,
  /** The engine's fault, and whether it culls back faces. */
  fault: optional(choice(letteringFaults)),
  cull: flag(),
  /** An eye that passes over. */
  pass: group({
    offset: length({ label: 'Offset of the line', short: 'beside', min: 0, source: 'pass', world: '3d' }),
    speed: length({ label: 'Speed of the eye', short: 'per s', above: 0, world: '3d' }),
    height: length({ label: 'Height of the line', short: 'above', world: '3d' }),
    hold: angle({ label: 'Cone in which right is kept', short: 'keep within', min: 0, max: radians(80), world: '3d' }),
  }),
  /** A constant size on the screen. */
  screen: group({
    on: flag(),
    pixels: pixels({ label: 'Height on the screen', short: 'height', above: 0, source: 'screenSize' }),
    nearest: length({ label: 'Nearest distance', short: 'from', above: 0, world: '3d' }),
    farthest: length({ label: 'Farthest distance', short: 'to', above: 0, world: '3d' }),
    /** Distances ahead where boards begin to fade, and where they are gone. */
    fade: z.tuple([
      length({ label: 'Fades from', short: 'fades from', world: '3d' }),
      length({ label: 'Gone at', short: 'gone at', world: '3d' }),
    ]),
  }),
  /** Whether boards are turned before the camera has moved, and how it turns and moves to its right. */
  stale: group({
    on: flag(),
    turnRate: yawRate({ label: 'Turn rate of the camera', short: 'turns', source: 'turnRate', world: '3d' }),
    speed: length({ label: 'Speed of the camera to its right', short: 'moves', world: '3d' }),
    frameRate: ratio({ label: 'Frames a second', short: 'fps', above: 0, world: '3d', words: 'frame rate' }),
  }),
  /** Distance ahead of the eye of the point that boards face by mistake. */
  ahead: length({ label: 'Point ahead of the eye', short: '', above: 0, source: 'ahead', world: '3d' }),
  /** Whether the boards of a 2D world stay upright on the screen. */
  upright: flag(),
});

export type BillboardState = z.infer<typeof billboardState>;
/** A board with text that faces the viewer. */
export type Board = BillboardState['boards'][number];
