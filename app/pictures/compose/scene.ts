import type { Vec3 } from '../../../core/math/vec3';
import type { ProjectBody } from '../../../formats/project';
import type { Poses } from '../../state/moment';
import { localEdgeStride, localFaceStride, localMesh, type LocalMesh } from './localMesh';
import type { ImageAtlas } from './imageAtlas';
import { toneOrder } from './palette';

/*
 * The bodies as the renderer takes them. Their meshes are uploaded once, in their own space; where
 * they stand is a texture of transforms, and a body that moves writes its own numbers there. Edges
 * are chosen by the eye on the CPU and so are kept in the world: a body that moves has its own made
 * anew.
 */

/** Per vertex: x, y, z, normal x, y, z, tone, family, body. */
export const faceStride = 9;
/**
 * Per edge: a, b, normal of one side, normal of the other (zero at a border), crease (1 or 0),
 * family, body.
 */
export const edgeStride = 15;
/**
 * Per body: three rows of the matrix from its mesh to the scene, then x 1 and y its layer's height in a 2D
 * world, or x 0; and z the number of its image in the atlas, from 1, or 0.
 */
export const transformStride = 16;

const noEdges = new Float32Array(0);

interface Entry {
  readonly id: string;
  readonly shape: ProjectBody['shape'];
  readonly tone: ProjectBody['tone'];
  readonly fixed: boolean;
  readonly root: string;
  readonly image: string | undefined;
  readonly mesh: LocalMesh;
  /** Where its edges begin among all. */
  readonly edgesAt: number;
  /** Its number among the points, or −1. */
  readonly point: number;
}

/**
 * Returns the distance between the layers of bodies in a 2D world. A body's layer is its rank among those that
 * cover one another. Layers stay within the ±1 that a 2D camera sees.
 */
const layerStep = (count: number): number => 0.8 / (count + 1);

/**
 * Bodies as buffers, kept in step with a project and its poses by as little work as they ask for.
 */
export class Scene {
  /** What all places are relative to, in canonical world space. */
  origin: Vec3 = [0, 0, 0];
  faces = new Float32Array(0);
  edges = new Float32Array(0);
  points = new Float32Array(0);
  transforms = new Float32Array(0);
  /** The first vertex of each body among the faces, and their count at the end. */
  faceStarts = new Int32Array(1);
  /** Per body the half extents of a box about its mesh's centre, along the axes of the scene. */
  extents = new Float32Array(0);
  /**
   * The outlines on the ground of what stands on the bottom: centre x, z, half sizes, cosine and
   * sine of the turn.
   */
  footprints: (readonly number[])[] = [];
  /** The images that bodies and tiles are drawn with. */
  images: ImageAtlas | null = null;
  /** Which number a family (a root body) goes by in the buffers. */
  families: ReadonlyMap<string, number> = new Map();
  /** In a flat world how far apart the layers are on which its bodies lie. */
  step = 0;
  /** Another number says that the meshes, or where things stand, are others. */
  meshRevision = 0;
  poseRevision = 0;
  /** How many bodies the last poses have moved: told to tests and the bench. */
  moved = 0;

  private entries: readonly Entry[] = [];
  private flat = false;
  private table: Float64Array | null = null;
  private posed = new Float64Array(0);
  /** For each body its place among those that cover one another in a 2D world. */
  private ranks = new Int32Array(0);
  private bodies: readonly ProjectBody[] | null = null;

  /**
   * Takes bodies (their order, shapes, tones and families) and the table's points; what is as it
   * was stays. `origin` is the middle of the scene at rest.
   */
  take(
    bodies: readonly ProjectBody[],
    roots: ReadonlyMap<string, string>,
    origin: Vec3,
    flat: boolean,
    table: Float64Array | null,
    images: ImageAtlas | null = null,
  ): void {
    const same =
      this.images === images &&
      this.flat === flat &&
      this.table === table &&
      (this.bodies === bodies || this.sameMeshes(bodies, roots)) &&
      // A body that is dragged moves the middle of all: the old one goes on serving while it is
      // near.
      Math.hypot(...this.origin.map((v, i) => v - origin[i]!)) <= this.tolerance(origin);
    this.bodies = bodies;
    if (same) return;
    this.origin = origin;
    this.flat = flat;
    this.table = table;
    this.images = images;
    this.step = layerStep(bodies.length);
    const families = new Map<string, number>();
    let [faces, edges, points] = [0, 0, 0];
    this.entries = bodies.map(({ id, shape, tone, fixed, image }) => {
      const root = roots.get(id)!;
      if (!families.has(root)) families.set(root, families.size);
      const isSprite = image !== undefined && images?.indexById.has(image) === true;
      // The outline of a sprite is that of its image.
      const mesh = isSprite ? { ...localMesh(shape, flat), edges: noEdges } : localMesh(shape, flat);
      const entry = {
        id,
        shape,
        tone,
        fixed,
        root,
        image,
        mesh,
        edgesAt: edges,
        point: shape.kind === 'point' ? points++ : -1,
      };
      faces += mesh.faces.length / localFaceStride;
      edges += mesh.edges.length / localEdgeStride;
      return entry;
    });
    this.families = families;
    this.faces = new Float32Array(faces * faceStride);
    this.edges = new Float32Array(edges * edgeStride);
    this.transforms = new Float32Array(bodies.length * transformStride);
    this.extents = new Float32Array(3 * bodies.length);
    this.faceStarts = new Int32Array(bodies.length + 1);
    this.points = new Float32Array(3 * points + (table?.length ?? 0));
    const to = this.faces;
    let at = 0;
    this.entries.forEach(({ mesh: { faces: own }, tone, root }, body) => {
      const [toneIndex, family] = [toneOrder.indexOf(tone), families.get(root)!];
      for (let i = 0; i < own.length; i += localFaceStride) {
        for (let k = 0; k < localFaceStride; k++) to[at + k] = own[i + k]!;
        to[at + 6] = toneIndex;
        to[at + 7] = family;
        to[at + 8] = body;
        at += faceStride;
      }
      this.faceStarts[body + 1] = at / faceStride;
    });
    for (let i = 0; table && i < table.length; i += 3)
      this.putPoint(points + i / 3, table[i]!, table[i + 1]!, table[i + 2]!);
    this.posed = new Float64Array(12 * bodies.length).fill(NaN);
    this.ranks = new Int32Array(bodies.length);
    // Those of what stands there are found when it is placed.
    this.footprints = [];
    this.meshRevision++;
  }

  /** Brings all bodies to where they stand; those that stand there already are left alone. */
  pose({ values, ranks }: Poses): void {
    this.moved = 0;
    let fixed = false;
    for (let i = 0; i < this.entries.length; i++) {
      const rank = ranks?.[i] ?? i;
      let same = this.ranks[i] === rank;
      this.ranks[i] = rank;
      for (let k = 0; k < 12; k++)
        if (values[12 * i + k] !== this.posed[12 * i + k]) {
          same = false;
          this.posed[12 * i + k] = values[12 * i + k]!;
        }
      if (same) continue;
      this.moved++;
      fixed ||= this.entries[i]!.fixed;
      this.place(i);
    }
    if (!this.moved) return;
    if (fixed) this.footprints = this.entries.flatMap((entry, i) => this.footprintOf(entry, i));
    this.poseRevision++;
  }

  private sameMeshes(bodies: readonly ProjectBody[], roots: ReadonlyMap<string, string>): boolean {
    return (
      bodies.length === this.entries.length &&
      this.entries.every((entry, i) => {
        const { id, shape, tone, fixed, image } = bodies[i]!;
        return (
          entry.id === id &&
          entry.shape === shape &&
          entry.tone === tone &&
          entry.fixed === fixed &&
          entry.image === image &&
          entry.root === roots.get(id)
        );
      })
    );
  }

  /**
   * How far the middle may stray before places are written about another one: singles have seven
   * digits.
   */
  private tolerance(origin: Vec3): number {
    let reach = 0;
    for (let i = 0; i < this.transforms.length; i += transformStride)
      for (const k of [3, 7, 11]) reach = Math.max(reach, Math.abs(this.transforms[i + k]!));
    return Math.max(reach, 1e-6 * Math.hypot(...origin)) / 2;
  }

  private putPoint(i: number, x: number, y: number, z: number): void {
    const [ox, oy, oz] = this.origin;
    this.points[3 * i] = x - ox;
    this.points[3 * i + 1] = y - oy;
    this.points[3 * i + 2] = this.flat ? 0.9 : z - oz;
  }

  /** Writes a body's transform and, by it, its edges in the world. */
  private place(body: number): void {
    const { mesh, edgesAt, point, root, image } = this.entries[body]!;
    const m = this.posed;
    const from = 12 * body;
    const { centre: c, scale: s, extents: h } = mesh;
    const out = this.transforms;
    const at = body * transformStride;
    // In doubles, and only then about the scene's middle in singles.
    for (let row = 0; row < 3; row++) {
      const [k, to] = [from + 4 * row, at + 4 * row];
      const [x, y, z] = [m[k]! * s[0], m[k + 1]! * s[1], m[k + 2]! * s[2]];
      out[to] = x;
      out[to + 1] = y;
      out[to + 2] = z;
      out[to + 3] = x * c[0] + y * c[1] + z * c[2] + m[k + 3]! - this.origin[row]!;
      this.extents[3 * body + row] = Math.abs(x) * h[0] + Math.abs(y) * h[1] + Math.abs(z) * h[2];
    }
    const layer = (this.ranks[body]! + 1) * this.step;
    out[at + 12] = this.flat ? 1 : 0;
    out[at + 13] = layer;
    out[at + 14] = image === undefined ? 0 : (this.images?.indexById.get(image) ?? -1) + 1;
    if (point >= 0) this.putPoint(point, m[from + 3]!, m[from + 7]!, m[from + 11]!);
    const own = mesh.edges;
    if (!own.length) return;
    // Normals are covectors: they go by the cofactors, which a mirroring turns over.
    const n = cofactors(out, at);
    const family = this.families.get(root)!;
    const { edges } = this;
    for (let i = 0, to = edgesAt * edgeStride; i < own.length; i += localEdgeStride, to += edgeStride) {
      for (let end = 0; end < 6; end += 3) {
        const x = own[i + end]!;
        const y = own[i + end + 1]!;
        const z = own[i + end + 2]!;
        edges[to + end] = out[at]! * x + out[at + 1]! * y + out[at + 2]! * z + out[at + 3]!;
        edges[to + end + 1] = out[at + 4]! * x + out[at + 5]! * y + out[at + 6]! * z + out[at + 7]!;
        edges[to + end + 2] = this.flat
          ? layer
          : out[at + 8]! * x + out[at + 9]! * y + out[at + 10]! * z + out[at + 11]!;
      }
      for (let side = 6; side < 12; side += 3) {
        const x = own[i + side]!;
        const y = own[i + side + 1]!;
        const z = own[i + side + 2]!;
        const nx = n[0]! * x + n[1]! * y + n[2]! * z;
        const ny = n[3]! * x + n[4]! * y + n[5]! * z;
        const nz = n[6]! * x + n[7]! * y + n[8]! * z;
        const size = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1;
        edges[to + side] = nx / size;
        edges[to + side + 1] = ny / size;
        edges[to + side + 2] = nz / size;
      }
      edges[to + 12] = own[i + 12]!;
      edges[to + 13] = family;
      edges[to + 14] = body;
    }
  }

  private footprintOf({ fixed, shape }: Entry, body: number): (readonly number[])[] {
    if (this.flat || !fixed || shape.kind !== 'box') return [];
    const m = this.posed.subarray(12 * body, 12 * body + 12);
    const across = [m[0]!, m[8]!] as const;
    const long = Math.hypot(...across) || 1;
    const half = [(shape.size[0] / 2) * long, (shape.size[2] / 2) * Math.hypot(m[2]!, m[10]!)];
    return [[m[3]!, m[11]!, half[0]!, half[1]!, across[0] / long, across[1] / long]];
  }
}

const cofactorsOut = new Float64Array(9);
/**
 * The cofactors of the linear part of the 3×4 matrix that begins at `at`, by the sign of its
 * determinant: what outward normals go by. The same array every time.
 */
function cofactors(m: Float32Array, at: number): Float64Array {
  const [a, b, c] = [m[at]!, m[at + 1]!, m[at + 2]!];
  const [d, e, f] = [m[at + 4]!, m[at + 5]!, m[at + 6]!];
  const [g, h, i] = [m[at + 8]!, m[at + 9]!, m[at + 10]!];
  const out = cofactorsOut;
  out[0] = e * i - f * h;
  out[1] = f * g - d * i;
  out[2] = d * h - e * g;
  out[3] = c * h - b * i;
  out[4] = a * i - c * g;
  out[5] = b * g - a * h;
  out[6] = b * f - c * e;
  out[7] = c * d - a * f;
  out[8] = a * e - b * d;
  if (a * out[0] + b * out[1] + c * out[2] < 0) for (let k = 0; k < 9; k++) out[k] = -out[k]!;
  return out;
}

/** Per drawn edge: a, b, 1 for a silhouette or 0 for a crease within it, family, depth by rank. */
export const drawnStride = 9;

/**
 * The edges that a view draws: silhouettes (one side seen, the other not, or a border), and creases
 * with a side that is seen. `eye` is the eye with w 1, or the direction to it with w 0. Chosen here
 * rather than on the GPU: most edges are not drawn. `depths` is what a body's rank in an order of
 * painting puts in the place of its depth.
 */
export function drawnEdges(
  edges: Float32Array,
  eye: readonly [number, number, number, number],
  depths: Float32Array | null = null,
): Float32Array {
  const out = new Float32Array((edges.length / edgeStride) * drawnStride);
  const [ex, ey, ez, ew] = eye;
  let n = 0;
  for (let i = 0; i < edges.length; i += edgeStride) {
    const x = ex - edges[i]! * ew;
    const y = ey - edges[i + 1]! * ew;
    const z = ez - edges[i + 2]! * ew;
    const front = edges[i + 6]! * x + edges[i + 7]! * y + edges[i + 8]! * z;
    const back = edges[i + 9]! * x + edges[i + 10]! * y + edges[i + 11]! * z;
    const border = edges[i + 9] === 0 && edges[i + 10] === 0 && edges[i + 11] === 0;
    const silhouette = border || front * back <= 0;
    if (!silhouette && !(edges[i + 12] === 1 && front > 0)) continue;
    for (let k = 0; k < 6; k++) out[n + k] = edges[i + k]!;
    out[n + 6] = silhouette ? 1 : 0;
    out[n + 7] = edges[i + 13]!;
    out[n + 8] = depths ? depths[edges[i + 14]!]! : 0;
    n += drawnStride;
  }
  return out.subarray(0, n);
}

/**
 * Per vertex: which corner (x 0 at a, 1 at b; y −1 or 1 for the side), then the whole line as
 * above.
 */
export const quadStride = 2 + drawnStride;

/**
 * Lines as four vertices each, for the GPU to draw out to their width: an instance for each would
 * cost a slow one more than all their pixels.
 */
export function quadsOf(lines: Float32Array): Float32Array {
  const count = lines.length / drawnStride;
  const out = new Float32Array(4 * count * quadStride);
  for (let i = 0; i < 4 * count; i++) {
    const at = i * quadStride;
    const corner = i % 4;
    out[at] = corner % 2;
    out[at + 1] = corner < 2 ? -1 : 1;
    const from = Math.floor(i / 4) * drawnStride;
    for (let k = 0; k < drawnStride; k++) out[at + 2 + k] = lines[from + k]!;
  }
  return out;
}

/** The two triangles of each of so many quads, as indices. */
export function quadIndices(count: number): Uint32Array {
  const out = new Uint32Array(6 * count);
  for (let i = 0; i < count; i++)
    out.set(
      [0, 1, 2, 2, 1, 3].map((k) => 4 * i + k),
      6 * i,
    );
  return out;
}
