import type { AngularSpan } from '../../../../core/order/angular';
import type { CameraFrame } from '../../../../core/camera/frame';
import { anglesFragment, coverVertex } from '../shaders';
import { attribute, compile, fillBuffer, vertexArray } from './gl';

/** How much finer than the picture of angles the plane one is that it is taken from. */
const finer = 2;
/** The longest side of the plane picture, in device pixels. */
const longest = 4096;

/** Returns the size of the plane picture for a picture of angles, both in device pixels. */
export function planeSize([width, height]: readonly [number, number]): readonly [number, number] {
  const k = Math.min(finer, longest / Math.max(width, height));
  return [Math.max(1, Math.round(width * k)), Math.max(1, Math.round(height * k))];
}

/**
 * Pictures of equal angles: the scene is drawn on a plane that holds all of their directions, beside
 * the canvas, and taken over from there.
 */
export function angleLayer(gl: WebGL2RenderingContext) {
  const program = compile(gl, coverVertex, anglesFragment, ['aCorner']);
  const buffer = gl.createBuffer();
  fillBuffer(gl, buffer, new Float32Array([-1, -1, 1, -1, -1, 1, 1, 1]));
  const array = vertexArray(gl, () => {
    gl.bindBuffer(gl.ARRAY_BUFFER, buffer);
    attribute(gl, 0, 2, 2, 0);
  });
  const target = gl.createFramebuffer();
  const plane = gl.createTexture();
  const depth = gl.createRenderbuffer();
  let [width, height] = [0, 0];

  return {
    /** Has what is drawn next go to the plane; gives its size for a picture of a size in device pixels. */
    begin([w, h]: readonly [number, number]): readonly [number, number] {
      const wanted = planeSize([w, h]);
      gl.activeTexture(gl.TEXTURE5);
      gl.bindTexture(gl.TEXTURE_2D, plane);
      gl.bindFramebuffer(gl.FRAMEBUFFER, target);
      if (wanted[0] !== width || wanted[1] !== height) {
        [width, height] = wanted;
        gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA8, width, height, 0, gl.RGBA, gl.UNSIGNED_BYTE, null);
        for (const [name, value] of [
          [gl.TEXTURE_MIN_FILTER, gl.LINEAR],
          [gl.TEXTURE_MAG_FILTER, gl.LINEAR],
          [gl.TEXTURE_WRAP_S, gl.CLAMP_TO_EDGE],
          [gl.TEXTURE_WRAP_T, gl.CLAMP_TO_EDGE],
        ] as const)
          gl.texParameteri(gl.TEXTURE_2D, name, value);
        gl.bindRenderbuffer(gl.RENDERBUFFER, depth);
        gl.renderbufferStorage(gl.RENDERBUFFER, gl.DEPTH24_STENCIL8, width, height);
        gl.framebufferTexture2D(gl.FRAMEBUFFER, gl.COLOR_ATTACHMENT0, gl.TEXTURE_2D, plane, 0);
        gl.framebufferRenderbuffer(gl.FRAMEBUFFER, gl.DEPTH_STENCIL_ATTACHMENT, gl.RENDERBUFFER, depth);
      }
      gl.viewport(0, 0, width, height);
      gl.scissor(0, 0, width, height);
      return wanted;
    },

    /** Takes the plane over onto the canvas, into the viewport that is set. */
    end({ extents: e, near }: CameraFrame, { left, right, bottom, top }: AngularSpan): void {
      gl.useProgram(program.program);
      gl.disable(gl.DEPTH_TEST);
      gl.disable(gl.BLEND);
      gl.activeTexture(gl.TEXTURE5);
      gl.bindTexture(gl.TEXTURE_2D, plane);
      gl.uniform1i(program.uniform('uPlane'), 5);
      gl.uniform4f(program.uniform('uSpan'), left, right, bottom, top);
      gl.uniform4f(program.uniform('uEdges'), e.left / near, e.right / near, e.bottom / near, e.top / near);
      gl.bindVertexArray(array);
      gl.drawArrays(gl.TRIANGLE_STRIP, 0, 4);
    },
  };
}
