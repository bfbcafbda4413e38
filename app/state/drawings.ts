import { create } from 'zustand';
import type { Vec2, Vec3 } from '../../core/math/vec3';
import type { Project } from '../../formats/project';

/**
 * The middle of a drawing and its scale. Plan: world x and z, of a flat world x and y. Section:
 * level distance from the eye along the heading, and height.
 */
export interface DrawingView {
  readonly middle: Vec2;
  readonly unitsPerPixel: number;
}

/** The free view from outside: what it looks at, from which side and how far off; degrees. */
export interface OutsideView {
  readonly target: Vec3;
  readonly yaw: number;
  readonly pitch: number;
  readonly distance: number;
}

/**
 * What a view of a drawing is of: the user's view of one project says nothing of another, and each
 * camera has its own.
 */
export const viewKey = ({ id, camera }: Pick<Project, 'id' | 'camera'>, picture: string): string =>
  `${id} ${camera.kind} ${camera.id} ${picture}`;

interface Drawings {
  /** The user's own views by `viewKey`; where there is none, one that fits. */
  readonly views: Readonly<Record<string, DrawingView | null>>;
  readonly outside: Readonly<Record<string, OutsideView | null>>;
  /** How often a fit was asked for. */
  readonly fits: number;
  /** The snapshot that is shown beside the present frame, and how. */
  readonly snapshot: { readonly id: string; readonly how: 'beside' | 'reticle' } | null;
}
export const useDrawings = create<Drawings>(() => ({ views: {}, outside: {}, fits: 0, snapshot: null }));

export const setView = (key: string, view: DrawingView): void =>
  useDrawings.setState(({ views }) => ({ views: { ...views, [key]: view } }));

export const setOutside = (key: string, view: OutsideView): void =>
  useDrawings.setState(({ outside }) => ({ outside: { ...outside, [key]: view } }));

/** Brings what a picture is of into it again. */
export const fitView = (key: string): void =>
  useDrawings.setState(({ views, outside, fits }) => ({
    views: { ...views, [key]: null },
    outside: { ...outside, [key]: null },
    fits: fits + 1,
  }));
