import { faceStride, transformStride, type Scene } from '../../compose/scene';
import { facesInView } from '../../compose/visibleParts';
import { faceFragment, faceVertex } from '../faceShaders';
import { attribute, compile, defining, eyeAbout, fillBuffer, vertexArray, type Drawing, type Program } from './gl';
import type { ImageTextures } from './imageTextures';

/** How many bodies stand side by side in the textures. */
const across = 256;
const texelsEach = transformStride / 4;

/** The faces of all bodies: meshes once, a texture of transforms, and one of tints. */
export function faceLayer(gl: WebGL2RenderingContext, images: ImageTextures) {
  const programs = new Map<string, Program>();
  /**
   * Returns the program for some features, compiled when it is first used: `PAINTED` leaves faces out and takes
   * depths by rank, `IMAGES` draws sprites.
   */
  function programWith(...features: readonly ('PAINTED' | 'IMAGES')[]): Program {
    const known = programs.get(features.join());
    if (known) return known;
    const [vertex, fragment] = [faceVertex, faceFragment].map((source) =>
      features.reduce((text, feature) => defining(feature, text), source),
    ) as [string, string];
    const program = compile(gl, vertex, fragment, ['aPosition', 'aNormal', 'aTone', 'aFamily', 'aBody', 'aRank']);
    programs.set(features.join(), program);
    return program;
  }
  programWith();
  const buffer = gl.createBuffer();
  const rankBuffer = gl.createBuffer();
  const lay = () => {
    gl.bindBuffer(gl.ARRAY_BUFFER, buffer);
    [3, 3, 1, 1, 1].reduce((offset, size, i) => {
      attribute(gl, i, size, faceStride, offset);
      return offset + size;
    }, 0);
  };
  const array = vertexArray(gl, lay);
  const rankedArray = vertexArray(gl, () => {
    lay();
    gl.bindBuffer(gl.ARRAY_BUFFER, rankBuffer);
    attribute(gl, 5, 1, 1, 0);
  });
  const texture = (unit: number) => {
    const made = gl.createTexture();
    gl.activeTexture(gl.TEXTURE0 + unit);
    gl.bindTexture(gl.TEXTURE_2D, made);
    for (const [name, value] of [
      [gl.TEXTURE_MIN_FILTER, gl.NEAREST],
      [gl.TEXTURE_MAG_FILTER, gl.NEAREST],
      [gl.TEXTURE_WRAP_S, gl.CLAMP_TO_EDGE],
      [gl.TEXTURE_WRAP_T, gl.CLAMP_TO_EDGE],
    ] as const)
      gl.texParameteri(gl.TEXTURE_2D, name, value);
    return made;
  };
  const [transforms, tints, leftOut] = [texture(1), texture(2), texture(4)];
  /** Of the triangles that the buffer of ranks holds. */
  let ranked: Float32Array | null = null;
  let vertices = 0;
  /** The vertices of the bodies in view: pairs of the first one and their count. */
  let ranges: readonly number[] = [];
  let rows = 0;
  let mesh = -1;
  let pose = -1;
  /** Undefined while the texture holds nothing. */
  let tinted: Uint8Array | null | undefined;
  let count = 0;

  return {
    /** Uploads the bodies, and chooses those that a picture may show. */
    upload(scene: Scene, matrix: Float32Array): void {
      uploadMeshes(scene);
      ranges = facesInView(scene, matrix);
    },
    /** A tint a body; null takes all away. */
    uploadTints(wanted: Uint8Array | null): void {
      if (wanted === tinted) return;
      tinted = wanted;
      putBytes(2, tints, wanted);
    },

    /** One family alone, or all with −1; dimmed towards the paper by what `dim` is short of 1. */
    draw(d: Drawing, family: number, dim: number): void {
      const { painting } = d.picture;
      gl.enable(gl.DEPTH_TEST);
      gl.depthFunc(gl.LEQUAL);
      gl.disable(gl.BLEND);
      const features = images.hasImages ? (['IMAGES'] as const) : [];
      if (!painting) return pass(d, programWith(...features), array, family, dim);
      const otherwise = programWith('PAINTED', ...features);
      gl.useProgram(otherwise.program);
      putBytes(4, leftOut, painting.leftOut);
      gl.uniform1i(otherwise.uniform('uLeftOut'), 4);
      const { ranks } = d;
      gl.uniform1i(otherwise.uniform('uRanked'), ranks ? 1 : 0);
      if (ranks && ranked !== ranks.triangles) {
        ranked = ranks.triangles;
        fillBuffer(
          gl,
          rankBuffer,
          Float32Array.from({ length: vertices }, (_, i) => ranked![Math.floor(i / 3)]!),
          true,
        );
      } else if (!ranks && ranked?.length !== vertices / 3) {
        ranked = new Float32Array(vertices / 3);
        fillBuffer(gl, rankBuffer, new Float32Array(vertices), true);
      }
      gl.uniform1i(otherwise.uniform('uGhost'), 0);
      pass(d, otherwise, rankedArray, family, dim);
      if (!painting.leftOut) return;
      // What is left out, as far as it would be seen.
      gl.depthMask(false);
      gl.uniform1i(otherwise.uniform('uGhost'), 1);
      pass(d, otherwise, rankedArray, family, dim);
      gl.depthMask(true);
    },
  };

  function uploadMeshes(scene: Scene): void {
    if (mesh !== scene.meshRevision) {
      mesh = scene.meshRevision;
      pose = -1;
      fillBuffer(gl, buffer, scene.faces);
      vertices = scene.faces.length / faceStride;
      count = scene.transforms.length / transformStride;
      rows = Math.max(1, Math.ceil(count / across));
      tinted = undefined;
    }
    if (pose === scene.poseRevision) return;
    pose = scene.poseRevision;
    const padded = new Float32Array(rows * across * transformStride);
    padded.set(scene.transforms);
    gl.activeTexture(gl.TEXTURE1);
    gl.bindTexture(gl.TEXTURE_2D, transforms);
    gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA32F, across * texelsEach, rows, 0, gl.RGBA, gl.FLOAT, padded);
  }

  function putBytes(unit: number, texture: WebGLTexture, bytes: Uint8Array | null): void {
    const padded = new Uint8Array(rows * across);
    if (bytes) padded.set(bytes.subarray(0, count));
    gl.activeTexture(gl.TEXTURE0 + unit);
    gl.bindTexture(gl.TEXTURE_2D, texture);
    gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1);
    gl.texImage2D(gl.TEXTURE_2D, 0, gl.R8UI, across, rows, 0, gl.RED_INTEGER, gl.UNSIGNED_BYTE, padded);
  }

  function pass(d: Drawing, program: Program, vertices: WebGLVertexArrayObject, family: number, dim: number): void {
    const { picture, palette } = d;
    gl.useProgram(program.program);
    if (images.hasImages) images.bind(program);
    gl.activeTexture(gl.TEXTURE1);
    gl.bindTexture(gl.TEXTURE_2D, transforms);
    gl.activeTexture(gl.TEXTURE2);
    gl.bindTexture(gl.TEXTURE_2D, tints);
    gl.uniform1i(program.uniform('uTransforms'), 1);
    gl.uniform1i(program.uniform('uTints'), 2);
    gl.uniformMatrix4fv(program.uniform('uViewProjection'), false, d.matrix);
    gl.uniform4fv(program.uniform('uEye'), eyeAbout(picture, d.origin));
    gl.uniform3fv(program.uniform('uLight'), [...picture.light]);
    gl.uniform3fv(program.uniform('uTones'), palette.tones.flat());
    gl.uniform3fv(program.uniform('uTintTones'), palette.tintTones.flat());
    gl.uniform3fv(program.uniform('uInk'), [...palette.ink]);
    gl.uniform3fv(program.uniform('uPaper'), [...palette.plate]);
    gl.uniform1f(program.uniform('uGround'), d.ground);
    gl.uniform1f(program.uniform('uPixel'), d.pixel);
    gl.uniform1i(program.uniform('uFamily'), family);
    gl.uniform1f(program.uniform('uDim'), dim);
    gl.uniform1i(program.uniform('uHatch'), picture.style === 'main' ? 1 : 0);
    gl.bindVertexArray(vertices);
    for (let i = 0; i < ranges.length; i += 2) gl.drawArrays(gl.TRIANGLES, ranges[i]!, ranges[i + 1]!);
  }
}
