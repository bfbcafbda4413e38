import type { Scene } from '../../compose/scene';
import { pointFragment, pointVertex } from '../shaders';
import { attribute, blendOver, compile, fillBuffer, gazeAbout, vertexArray, type Drawing } from './gl';

/** What is a point and no more: a small cross of one size wherever it lies. */
export function pointLayer(gl: WebGL2RenderingContext) {
  const program = compile(gl, pointVertex, pointFragment, ['aPosition']);
  const buffer = gl.createBuffer();
  const array = vertexArray(gl, () => {
    gl.bindBuffer(gl.ARRAY_BUFFER, buffer);
    attribute(gl, 0, 3, 3, 0);
  });
  let count = 0;
  let mesh = -1;
  let pose = -1;
  return {
    upload(scene: Scene): void {
      if (mesh === scene.meshRevision && (pose === scene.poseRevision || !scene.points.length)) return;
      [mesh, pose] = [scene.meshRevision, scene.poseRevision];
      fillBuffer(gl, buffer, scene.points, true);
      count = scene.points.length / 3;
    },
    draw(d: Drawing): void {
      if (!count) return;
      const { picture, palette, pixel } = d;
      const { frame, style } = picture;
      gl.useProgram(program.program);
      blendOver(gl);
      gl.uniformMatrix4fv(program.uniform('uViewProjection'), false, d.matrix);
      gl.uniform4fv(program.uniform('uGaze'), gazeAbout(frame, d.origin));
      gl.uniform3fv(program.uniform('uColor'), [...palette.ink]);
      gl.uniform3fv(program.uniform('uPaper'), [...palette.plate]);
      gl.uniform1f(program.uniform('uFar'), frame.far ?? 1e30);
      // Where there are many they are smaller, so that they stay apart.
      const share = count > 5000 ? 0.6 : count > 300 ? 0.75 : 1;
      gl.uniform1f(program.uniform('uSize'), (style === 'main' ? 9 : 6) * share * pixel);
      gl.uniform1f(program.uniform('uPixel'), pixel);
      gl.bindVertexArray(array);
      gl.drawArrays(gl.POINTS, 0, count);
      gl.depthMask(true);
    },
  };
}
