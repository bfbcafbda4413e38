import { canonicalAxes, type AxisFrame } from './axes';

/**
 * Everything that two engines may disagree about while they mean the same camera. See
 * `docs/compute.md`.
 */
export interface Conventions {
  readonly world: AxisFrame;
  readonly view: AxisFrame;
  readonly ndc: {
    /** Whether NDC y grows towards the top of the picture or towards its bottom. */
    readonly up: '+y' | '-y';
    /** The NDC depth of the near and of the far plane: any two different numbers. */
    readonly near: number;
    readonly far: number;
  };
  readonly screen: {
    readonly origin: 'top-left' | 'bottom-left';
    /** The coordinate of the centre of the first pixel. */
    readonly pixelCentre: 0 | 0.5;
  };
  readonly matrix: {
    /** `column`: p′ = M·p. `row`: p′ = p·M, with the transposed matrix. */
    readonly vectors: 'column' | 'row';
    /** In which order the sixteen numbers of that matrix are listed. */
    readonly storage: 'column-major' | 'row-major';
  };
  readonly angles: {
    readonly unit: 'degrees' | 'radians';
    readonly yaw: 'right' | 'left';
    readonly pitch: 'up' | 'down';
    readonly roll: 'right' | 'left';
  };
}

/** What a request that says nothing means. */
export const defaultConventions: Conventions = {
  world: canonicalAxes,
  view: canonicalAxes,
  ndc: { up: '+y', near: 0, far: 1 },
  screen: { origin: 'top-left', pixelCentre: 0.5 },
  matrix: { vectors: 'column', storage: 'column-major' },
  angles: { unit: 'degrees', yaw: 'right', pitch: 'up', roll: 'right' },
};

export type PresetName = 'WebGL' | 'Vulkan' | 'WebGPU' | 'glTF';

/**
 * Conventions of open standards. A standard fixes what its text fixes (clip space, window origin,
 * asset axes); the rest is the default.
 * - WebGL and OpenGL: NDC y up, depth −1 to 1, window origin bottom left (OpenGL ES 3.0, 2.13 and
 *   3.4).
 * - Vulkan: NDC y down, depth 0 to 1, framebuffer origin top left (Vulkan 1.3, "Vertex
 *   Post-Processing"); the view axes are those of its clip space.
 * - WebGPU: NDC y up, depth 0 to 1, framebuffer origin top left (WebGPU, 3.3 "Coordinate Systems").
 * - glTF: assets are right-handed, +y up, their front towards +z, −x to the right; cameras look
 *   along −z with a projection to −1…1 (glTF 2.0, 3.4 and 3.10).
 */
export const presets: Readonly<Record<PresetName, Conventions>> = {
  WebGL: {
    ...defaultConventions,
    ndc: { up: '+y', near: -1, far: 1 },
    screen: { origin: 'bottom-left', pixelCentre: 0.5 },
  },
  Vulkan: {
    ...defaultConventions,
    view: { right: '+x', up: '-y', forward: '+z' },
    ndc: { up: '-y', near: 0, far: 1 },
  },
  WebGPU: defaultConventions,
  glTF: {
    ...defaultConventions,
    world: { right: '-x', up: '+y', forward: '+z' },
    ndc: { up: '+y', near: -1, far: 1 },
  },
};

/** Whether two sets of conventions say the same. */
export const sameConventions = (a: Conventions, b: Conventions): boolean =>
  JSON.stringify(ordered(a)) === JSON.stringify(ordered(b));

/** The preset with exactly these conventions, or null when they are the user's own. */
export function presetOf(conventions: Conventions): PresetName | null {
  const found = Object.entries(presets).find(([, value]) => sameConventions(conventions, value));
  return (found?.[0] as PresetName | undefined) ?? null;
}

const ordered = ({ world, view, ndc, screen, matrix, angles }: Conventions) => [
  [world.right, world.up, world.forward],
  [view.right, view.up, view.forward],
  [ndc.up, ndc.near, ndc.far],
  [screen.origin, screen.pixelCentre],
  [matrix.vectors, matrix.storage],
  [angles.unit, angles.yaw, angles.pitch, angles.roll],
];

/** The usual NDC depths of near and far. */
export const usualDepths: readonly (readonly [near: number, far: number])[] = [[-1, 1], [0, 1], [1, 0], [1, -1]]; // prettier-ignore

/** The same conventions with the other listing, that of the transpose. Its own inverse. */
export const withOtherListing = (c: Conventions): Conventions => ({
  ...c,
  matrix: { ...c.matrix, storage: c.matrix.storage === 'row-major' ? 'column-major' : 'row-major' },
});
