import type { Page } from '@playwright/test';

declare global {
  /**
   * A WebGL2 canvas of a size with a program in use; the vertex attribute `v`, if there is one, is
   * at 0. Only in pages opened by `blankWithGpu`.
   */
  var gpuWith: (
    width: number,
    height: number,
    vertex: string,
    fragment: string,
  ) => { gl: WebGL2RenderingContext; uniform: (name: string) => WebGLUniformLocation | null };
}

/** An empty page that can draw with the GPU: none of our code runs in it. */
export async function blankWithGpu(page: Page): Promise<void> {
  await page.goto('about:blank');
  await page.evaluate(() => {
    globalThis.gpuWith = (width, height, vertex, fragment) => {
      const gl = Object.assign(document.createElement('canvas'), { width, height }).getContext('webgl2', {
        antialias: false,
      })!;
      const program = gl.createProgram();
      const add = (type: number, source: string) => {
        const shader = gl.createShader(type)!;
        gl.shaderSource(shader, `#version 300 es\n${source}`);
        gl.compileShader(shader);
        gl.attachShader(program, shader);
      };
      add(gl.VERTEX_SHADER, vertex);
      add(gl.FRAGMENT_SHADER, `precision highp float; ${fragment}`);
      gl.bindAttribLocation(program, 0, 'v');
      gl.linkProgram(program);
      gl.useProgram(program);
      return { gl, uniform: (name) => gl.getUniformLocation(program, name) };
    };
  });
}
