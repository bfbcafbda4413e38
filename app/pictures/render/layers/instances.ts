import type { InstanceLayer } from '../../compose/contract';
import { localFaceStride, localMesh } from '../../compose/localMesh';
import { instanceFragment, instanceVertex } from '../shaders';
import { compile, eyeAbout, gpuMatrix, type Drawing, letGo } from './gl';

/** Instances to a row of the textures, and texels of a transform. */
const across = 256;
const texelsEach = 3;
/** How many indices the buffer of a shape holds at least one instance of: it is drawn again and again. */
const indicesOnce = 1 << 18;

interface Corners {
  /** x, y, z of each, no two alike. */
  readonly places: readonly (readonly [number, number, number])[];
  /** Three to a triangle. */
  readonly indices: readonly number[];
}

/** A shape of side, diameter or width 1, as corners that its faces share. */
export function instanceCorners(shape: InstanceLayer['shape']): Corners {
  const mesh = localMesh(
    shape === 'quad'
      ? { kind: 'quad', size: [1, 1] }
      : shape === 'sphere'
        ? { kind: 'sphere', radius: 0.5 }
        : { kind: 'box', size: [1, 1, 1] },
    false,
  );
  const places: (readonly [number, number, number])[] = [];
  const known = new Map<string, number>();
  const indices: number[] = [];
  /** Three thin bars through the middle are a cross. */
  const thin = shape === 'cross' ? [0, 1, 2].map((axis) => [0, 1, 2].map((k) => (k === axis ? 1 : 0.12))) : [[1, 1, 1]];
  for (const by of thin)
    for (let i = 0; i < mesh.faces.length; i += localFaceStride) {
      const at = [0, 1, 2].map((k) => mesh.faces[i + k]! * mesh.scale[k]! * by[k]!) as [number, number, number];
      const key = at.join();
      if (!known.has(key)) known.set(key, places.push(at) - 1);
      indices.push(known.get(key)!);
    }
  return { places, indices };
}

/** A shape on the GPU, its indices for as many instances as are drawn in one go. */
interface Mesh {
  readonly corners: WebGLTexture;
  readonly array: WebGLVertexArrayObject;
  readonly each: number;
  readonly indicesEach: number;
  readonly atOnce: number;
}

/** What stands on the GPU for one layer of instances. */
interface Held {
  readonly transforms: WebGLTexture;
  readonly tints: WebGLTexture;
  revision: number;
  tintRevision: number;
  count: number;
}

/** Layers of many like things: one mesh a shape, a texture of transforms and one of tints a layer. */
export function instanceLayers(gl: WebGL2RenderingContext) {
  const program = compile(gl, instanceVertex, instanceFragment, []);

  function texture(unit: number): WebGLTexture {
    const made = gl.createTexture();
    gl.activeTexture(gl.TEXTURE0 + unit);
    gl.bindTexture(gl.TEXTURE_2D, made);
    for (const filter of [gl.TEXTURE_MIN_FILTER, gl.TEXTURE_MAG_FILTER])
      gl.texParameteri(gl.TEXTURE_2D, filter, gl.NEAREST);
    return made;
  }

  const meshes = new Map<string, Mesh>();
  function meshOf(shape: InstanceLayer['shape']): Mesh {
    const known = meshes.get(shape);
    if (known) return known;
    const { places, indices } = instanceCorners(shape);
    const corners = texture(4);
    const texels = new Float32Array(4 * places.length);
    places.forEach((place, i) => texels.set(place, 4 * i));
    gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA32F, places.length, 1, 0, gl.RGBA, gl.FLOAT, texels);
    const atOnce = Math.max(1, Math.floor(indicesOnce / indices.length));
    const all = new Uint32Array(atOnce * indices.length);
    for (let one = 0, at = 0; one < atOnce; one++) for (const i of indices) all[at++] = one * places.length + i;
    const array = gl.createVertexArray();
    gl.bindVertexArray(array);
    gl.bindBuffer(gl.ELEMENT_ARRAY_BUFFER, gl.createBuffer());
    gl.bufferData(gl.ELEMENT_ARRAY_BUFFER, all, gl.STATIC_DRAW);
    gl.bindVertexArray(null);
    const made = { corners, array, each: places.length, indicesEach: indices.length, atOnce };
    meshes.set(shape, made);
    return made;
  }

  const held = new Map<string, Held>();
  function hold(key: string): Held {
    const made = { transforms: texture(5), tints: texture(6), revision: NaN, tintRevision: NaN, count: 0 };
    held.set(key, made);
    return made;
  }

  /** The bytes of so many tints: whole rows, then what is left. */
  function putTints({ tints, count }: Held, bytes: Uint8Array): void {
    gl.activeTexture(gl.TEXTURE6);
    gl.bindTexture(gl.TEXTURE_2D, tints);
    gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1);
    const rows = Math.floor(count / across);
    const left = count - rows * across;
    const put = (row: number, width: number, height: number) =>
      gl.texSubImage2D(gl.TEXTURE_2D, 0, 0, row, width, height, gl.RED_INTEGER, gl.UNSIGNED_BYTE, bytes, row * across); // prettier-ignore
    if (rows) put(0, across, rows);
    if (left) put(rows, left, 1);
  }

  return {
    /**
     * Brings what is on the GPU to what a layer says; a tint that changed alone uploads bytes
     * alone.
     */
    upload(layer: InstanceLayer): void {
      const { key, revision, tintRevision = revision } = layer;
      const one = held.get(key) ?? hold(key);
      if (one.revision !== revision) {
        one.count = layer.transforms.length / 12;
        const rows = Math.max(1, Math.ceil(one.count / across));
        const padded = new Float32Array(rows * across * 4 * texelsEach);
        padded.set(layer.transforms);
        gl.activeTexture(gl.TEXTURE5);
        gl.bindTexture(gl.TEXTURE_2D, one.transforms);
        gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA32F, across * texelsEach, rows, 0, gl.RGBA, gl.FLOAT, padded);
        gl.activeTexture(gl.TEXTURE6);
        gl.bindTexture(gl.TEXTURE_2D, one.tints);
        gl.texImage2D(gl.TEXTURE_2D, 0, gl.R8UI, across, rows, 0, gl.RED_INTEGER, gl.UNSIGNED_BYTE, null);
      }
      if (one.revision !== revision || one.tintRevision !== tintRevision) putTints(one, layer.tints);
      [one.revision, one.tintRevision] = [revision, tintRevision];
    },

    draw(d: Drawing, layer: InstanceLayer): void {
      const one = held.get(layer.key);
      if (!one?.count) return;
      const { picture, palette } = d;
      const mesh = meshOf(layer.shape);
      gl.useProgram(program.program);
      gl.enable(gl.DEPTH_TEST);
      gl.depthFunc(gl.LEQUAL);
      gl.depthMask(true);
      gl.disable(gl.BLEND);
      gl.uniformMatrix4fv(program.uniform('uViewProjection'), false, gpuMatrix(picture.frame, layer.origin));
      gl.uniform4fv(program.uniform('uEye'), eyeAbout(picture, layer.origin));
      gl.uniform3fv(program.uniform('uLight'), [...picture.light]);
      gl.uniform3fv(program.uniform('uTintTones'), palette.tintTones.flat());
      gl.uniform1i(program.uniform('uLit'), layer.shape === 'cross' ? 0 : 1);
      const textures = {
        uCorners: [4, mesh.corners],
        uTransforms: [5, one.transforms],
        uTints: [6, one.tints],
      } as const;
      for (const [name, [unit, bound]] of Object.entries(textures)) {
        gl.activeTexture(gl.TEXTURE0 + unit);
        gl.bindTexture(gl.TEXTURE_2D, bound);
        gl.uniform1i(program.uniform(name), unit);
      }
      gl.uniform1i(program.uniform('uEach'), mesh.each);
      gl.bindVertexArray(mesh.array);
      for (let first = 0; first < one.count; first += mesh.atOnce) {
        gl.uniform1i(program.uniform('uFirst'), first);
        const count = Math.min(mesh.atOnce, one.count - first) * mesh.indicesEach;
        gl.drawElements(gl.TRIANGLES, count, gl.UNSIGNED_INT, 0);
      }
    },

    /** Lets go of what no picture shows any more. */
    keepOnly(keys: ReadonlySet<string>): void {
      letGo(held, keys, ({ transforms, tints }) => {
        gl.deleteTexture(transforms);
        gl.deleteTexture(tints);
      });
    },
  };
}
