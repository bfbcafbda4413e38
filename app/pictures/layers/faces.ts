import { faceStride, transformStride, type Scene } from '../scene';
import { faceFragment, faceVertex } from '../shaders';
import { attribute, compile, eyeAbout, fillBuffer, vertexArray, type Drawing } from './gl';

/** How many bodies stand side by side in the textures. */
const across = 256;
const texelsEach = transformStride / 4;

/** The faces of all bodies: meshes once, a texture of transforms, and one of tints. */
export function faceLayer(gl: WebGL2RenderingContext) {
  const program = compile(gl, faceVertex, faceFragment, ['aPosition', 'aNormal', 'aTone', 'aFamily', 'aBody']);
  const buffer = gl.createBuffer();
  const array = vertexArray(gl, () => {
    gl.bindBuffer(gl.ARRAY_BUFFER, buffer);
    [3, 3, 1, 1, 1].reduce((offset, size, i) => {
      attribute(gl, i, size, faceStride, offset);
      return offset + size;
    }, 0);
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
  const [transforms, tints] = [texture(1), texture(2)];
  let vertices = 0;
  let rows = 0;
  let mesh = -1;
  let pose = -1;
  /** Undefined while the texture holds nothing. */
  let tinted: Uint8Array | null | undefined;
  let count = 0;

  return {
    upload(scene: Scene): void {
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
    },

    /** A tint a body; null takes all away. */
    uploadTints(wanted: Uint8Array | null): void {
      if (wanted === tinted) return;
      const padded = new Uint8Array(rows * across);
      if (wanted) padded.set(wanted.subarray(0, count));
      tinted = wanted;
      gl.activeTexture(gl.TEXTURE2);
      gl.bindTexture(gl.TEXTURE_2D, tints);
      gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1);
      gl.texImage2D(gl.TEXTURE_2D, 0, gl.R8UI, across, rows, 0, gl.RED_INTEGER, gl.UNSIGNED_BYTE, padded);
    },

    /** One family alone, or all with −1; dimmed towards the paper by what `dim` is short of 1. */
    draw(d: Drawing, family: number, dim: number): void {
      const { picture, palette } = d;
      gl.enable(gl.DEPTH_TEST);
      gl.depthFunc(gl.LEQUAL);
      gl.disable(gl.BLEND);
      gl.useProgram(program.program);
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
      gl.bindVertexArray(array);
      gl.drawArrays(gl.TRIANGLES, 0, vertices);
    },
  };
}
