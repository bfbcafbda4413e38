import { planesOf, type CameraFrame } from '../camera/frame';

/**
 * The planes of a frame as a flat list, nx, ny, nz, d after one another: unit normals inward, n·p +
 * d ≥ 0 inside. Five or six.
 */
export const planeKernel = (frame: CameraFrame): Float64Array =>
  Float64Array.from(planesOf(frame).flatMap(({ plane }) => plane));

/**
 * What a sphere is to the planes, as `classifySpheres` writes it. Touching, from either side, is
 * crossing.
 */
export const sphereVerdict = { outside: 0, crosses: 1, inside: 2 } as const;

/**
 * What many spheres are to a set of planes: the customary conservative test (`visibility` with the
 * method `planes`).
 *
 * @param planes   from `planeKernel`
 * @param spheres  x, y, z, radius after one another, in canonical world space
 * @param verdicts receives a byte a sphere, of `sphereVerdict`
 */
export function classifySpheres(planes: Float64Array, spheres: Float64Array, verdicts: Uint8Array): void {
  const count = spheres.length / 4;
  const end = planes.length;
  for (let i = 0, j = 0; i < count; i++, j += 4) {
    const x = spheres[j]!;
    const y = spheres[j + 1]!;
    const z = spheres[j + 2]!;
    const r = spheres[j + 3]!;
    let verdict = 2;
    for (let p = 0; p < end; p += 4) {
      const d = planes[p]! * x + planes[p + 1]! * y + planes[p + 2]! * z + planes[p + 3]!;
      if (d < -r) {
        verdict = 0;
        break;
      }
      if (d <= r) verdict = 1;
    }
    verdicts[i] = verdict;
  }
}
