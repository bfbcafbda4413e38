import { codecOf } from '../conventions/codec';
import type { Conventions } from '../conventions/conventions';
import { opposite } from '../conventions/axes';
import type { Viewport } from '../camera/frame';
import type { RequestCamera2d } from '../request/cameraSchema';
import { decomposeAffine, mappingOf, type Given2d } from './diagnose2d';

/** A set of conventions under which numbers are a proper 2D camera, and that camera. */
export interface Candidate2d {
  readonly conventions: Conventions;
  readonly camera: RequestCamera2d;
}

/** What the numbers of a 2D camera hold without an intended one. */
export interface Identified2d {
  /** Likeliest first: the listing and the sense of y as given. */
  readonly candidates: readonly Candidate2d[];
  /** The numbers that all candidates share. */
  readonly decided: { readonly zoom?: number; readonly isUniform?: boolean };
}

/** The conventions with the other sense of the world's up. */
const withOtherUp = (c: Conventions): Conventions => ({ ...c, world: { ...c.world, up: opposite(c.world.up) } });
const withOtherStorage = (c: Conventions): Conventions => ({
  ...c,
  matrix: { ...c.matrix, storage: c.matrix.storage === 'row-major' ? 'column-major' : 'row-major' },
});

/**
 * Finds the senses of the world's up and the listings under which numbers are a proper 2D camera: one zoom along both
 * axes, at right angles, and not mirrored. The anchor of each camera is the middle of the viewport: which of focus and
 * anchor carries the translation cannot be told.
 *
 * @param conventions - of the request; its other conventions are kept
 */
export function identify2d(given: Given2d, conventions: Conventions, viewport: Viewport): Identified2d {
  const hasMatrix = Boolean(given.matrices.worldToPixel ?? given.matrices.pixelToWorld);
  const listings = hasMatrix ? [conventions, withOtherStorage(conventions)] : [conventions];
  const anchor: [number, number] = [viewport.x + viewport.width / 2, viewport.y + viewport.height / 2];
  const found = listings.flatMap((listing) =>
    [listing, withOtherUp(listing)].flatMap((own) => {
      const codec = codecOf(own);
      const mapping = mappingOf(codec.listsColumns, given);
      const read = mapping && decomposeAffine(mapping, anchor, codec, given.digits);
      if (!read || !read.isUniform || read.mirrored) return [];
      const { focus, zoom, rotation } = read;
      const camera: RequestCamera2d = { kind: '2d', focus: [...focus], anchor, zoom, rotation, snap: 'none' };
      return [{ conventions: own, camera }];
    }),
  );
  // Symmetric numbers read the same by rows and by columns.
  const keys = new Set<string>();
  const candidates = found.filter(({ conventions: own, camera }) => {
    const key = JSON.stringify([own.world.up, camera.focus, camera.zoom, camera.rotation]);
    return !keys.has(key) && keys.add(key);
  });
  const zooms = new Set(candidates.map(({ camera }) => camera.zoom));
  return { candidates, decided: candidates.length ? { ...(zooms.size === 1 && { zoom: [...zooms][0]! }), isUniform: true } : {} }; // prettier-ignore
}
