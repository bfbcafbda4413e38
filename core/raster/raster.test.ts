import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { frameOf, projectionMatrix } from '../camera/frame';
import { Raster, withOwnDepth, type RasterState, type Vertex } from './raster';

const replace: RasterState = { hasDepthTest: false, writesDepth: false, isBlended: false };
const nearest: RasterState = { hasDepthTest: true, writesDepth: true, isBlended: false };

const coordinate = fc.double({ min: -1.4, max: 1.4, noNaN: true });
const point = fc.tuple(coordinate, coordinate);
const vertex = (x: number, y: number, z: number, w = 1, ...varyings: number[]): Vertex =>
  Float64Array.of(x * w, y * w, z * w, w, ...varyings);

describe('the software rasteriser', () => {
  it('draws each pixel of a divided polygon once, whichever diagonal divides it', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.05, max: 1, noNaN: true }), { minLength: 4, maxLength: 4 }),
        point,
        (steps, [x, y]) => {
          // Four points round an ellipse are convex.
          const sum = steps.reduce((all, step) => all + step, 0);
          let angle = 0;
          const corners = steps.map((step) => {
            angle += (2 * Math.PI * step) / sum;
            return vertex(x + 0.9 * Math.cos(angle), y + 0.6 * Math.sin(angle), 0);
          });
          const [a, b, c, d] = corners as [Vertex, Vertex, Vertex, Vertex];
          const drawn = [[a, b, c, d] as const, [b, c, d, a] as const].map(([p, q, r, s]) => {
            const raster = new Raster(37, 23);
            const counts = new Uint8Array(37 * 23);
            const count = ({ x, y }: { x: number; y: number }) => {
              counts[(23 - Math.ceil(y)) * 37 + Math.floor(x)]!++;
              return true;
            };
            raster.triangle(p, q, r, 0, replace, count);
            raster.triangle(p, r, s, 0, replace, count);
            return counts;
          });
          expect(Math.max(...drawn[0]!)).toBeLessThanOrEqual(1);
          expect(drawn[0]).toEqual(drawn[1]);
        },
      ),
    );
  });

  it('shows the nearest of random triangles, whichever is drawn first, at the depth of its plane', () => {
    const corner = fc.tuple(coordinate, coordinate, fc.double({ min: -1, max: 1, noNaN: true }));
    fc.assert(
      fc.property(fc.array(fc.tuple(corner, corner, corner), { minLength: 2, maxLength: 6 }), (triangles) => {
        const drawAll = (order: readonly number[]) => {
          const raster = new Raster(20, 20);
          for (const i of order) {
            const [a, b, c] = triangles[i]!.map(([x, y, z]) => vertex(x, y, z)) as [Vertex, Vertex, Vertex];
            raster.triangle(a, b, c, 0, nearest, (f) => {
              [f.red, f.green, f.blue] = [(25 * (i + 1)) / 255, 0, 0];
              return true;
            });
          }
          return raster;
        };
        const order = triangles.map((_, i) => i);
        const [one, other] = [drawAll(order), drawAll([...order].reverse())];
        const off = one.depths.map((depth, at) => Math.abs(depth - other.depths[at]!));
        expect(Math.max(...off)).toBeLessThan(1e-12);
        expect(Math.max(...one.depths)).toBeLessThanOrEqual(1);
        expect(Math.min(...one.depths)).toBeGreaterThanOrEqual(-1e-12);
        // Where one is nearer than the others, its colour shows.
        const alone = order.map((i) => drawAll([i]).depths);
        const wrong = [...one.depths.keys()].filter((at) => {
          const sorted = order.filter((i) => alone[i]![at]! < 1).sort((i, j) => alone[i]![at]! - alone[j]![at]!);
          const [first, second] = sorted.map((i) => alone[i]![at]!);
          if (first === undefined || (second !== undefined && second - first < 1e-9)) return false;
          return one.colours[4 * at] !== 25 * (sorted[0]! + 1);
        });
        expect(wrong).toEqual([]);
      }),
    );
  });

  it('interpolates in perspective: a fragment’s world point projects to its pixel', () => {
    let fragments = 0;
    const world = fc.tuple(...[-8, -8, -40].map((low) => fc.double({ min: low, max: low + 38, noNaN: true })));
    fc.assert(
      fc.property(world, world, world, (...corners) => {
        const made = frameOf(
          {
            position: [0, 0, 0],
            orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
            projection: { kind: 'perspective', near: 0.5, far: 60, lens: { verticalFov: 0.9 } },
          },
          { x: 0, y: 0, width: 40, height: 30 },
        );
        if (!made.ok) throw new Error('a proper camera');
        const m = projectionMatrix(made.value, -1, 1);
        const clip = (p: readonly number[]): Vertex =>
          Float64Array.of(
            ...[0, 1, 2, 3].map(
              (r) => m[4 * r]! * p[0]! + m[4 * r + 1]! * p[1]! + m[4 * r + 2]! * -p[2]! + m[4 * r + 3]!,
            ),
            ...p,
          );
        const raster = new Raster(40, 30);
        raster.triangle(...(corners.map(clip) as [Vertex, Vertex, Vertex]), 3, replace, (f) => {
          fragments++;
          const [x, y, , w] = clip([...f.varyings.subarray(0, 3)]);
          expect(((x! / w! + 1) / 2) * 40).toBeCloseTo(f.x, 6);
          expect(((y! / w! + 1) / 2) * 30).toBeCloseTo(f.y, 6);
          expect(f.depth).toBeGreaterThanOrEqual(-1e-9);
          expect(f.depth).toBeLessThanOrEqual(1 + 1e-9);
          return true;
        });
      }),
    );
    expect(fragments).toBeGreaterThan(1000);
  });

  it('keeps to its area, blends by opacity, draws once where asked, and takes a depth of the shader’s own', () => {
    const whole = [vertex(-3, -1, 0), vertex(3, -1, 0), vertex(0, 5, 0)] as const;
    const raster = new Raster(4, 4);
    raster.setArea({ x: 1, y: 0, width: 2, height: 3 });
    const red = (f: { red: number; green: number; blue: number; opacity: number }) => {
      [f.red, f.green, f.blue, f.opacity] = [1, 0, 0, 0.5];
      return true;
    };
    raster.triangle(...whole, 0, { ...replace, isBlended: true, isOnce: true }, red);
    raster.triangle(...whole, 0, { ...replace, isBlended: true, isOnce: true }, red);
    const reds = Array.from({ length: 16 }, (_, i) => raster.colours[4 * i]!);
    expect(reds).toEqual([0, 128, 128, 0, 0, 128, 128, 0, 0, 128, 128, 0, 0, 0, 0, 0]);
    raster.clearOnce();
    raster.triangle(...whole, 0, { ...replace, isBlended: true, isOnce: true }, red);
    expect(raster.colours[4]).toBe(192);
    const near = withOwnDepth((f) => ((f.depth = 0.1), red(f)));
    raster.triangle(...whole, 0, nearest, near);
    expect([...raster.depths].filter((depth) => depth === 0.1)).toHaveLength(6);
    raster.triangle(...whole, 0, nearest, () => expect.fail('it is hidden'));
  });
});
