import { niceBelow } from '../../../../core/math/nice';
import { sub } from '../../../../core/math/vec3';
import { horizonLine } from '../../../../core/order/horizon';
import type { Tiles } from '../../../../formats/project';
import type { Picture } from '../../compose/picture';
import type { Scene } from '../../compose/scene';
import { chartFragment, groundFragment, groundVertex } from '../shaders';
import { attribute, compile, fillBuffer, vertexArray, type Drawing, type Program } from './gl';

/**
 * What lies behind all bodies: sky and water with their grid, or the map of a flat world. A ray for
 * every pixel.
 */
export function groundLayer(gl: WebGL2RenderingContext) {
  const grounds: Partial<Record<Picture['style'], Program>> = {};
  const chart = compile(gl, groundVertex, chartFragment, ['aCorner']);
  const buffer = gl.createBuffer();
  fillBuffer(gl, buffer, new Float32Array([-1, -1, 1, -1, -1, 1, 1, 1]));
  const array = vertexArray(gl, () => {
    gl.bindBuffer(gl.ARRAY_BUFFER, buffer);
    attribute(gl, 0, 2, 2, 0);
  });
  const texture = gl.createTexture();
  let held: Tiles | null = null;

  const cover = () => {
    gl.bindVertexArray(array);
    gl.drawArrays(gl.TRIANGLE_STRIP, 0, 4);
  };

  function uploadTiles(tiles: Tiles): void {
    if (tiles === held) return;
    held = tiles;
    const { values, columns, bands } = tiles;
    const tones = Uint8Array.from(values, (v) => (v === null ? 255 : bands.filter((limit) => v >= limit).length));
    gl.bindTexture(gl.TEXTURE_2D, texture);
    gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1);
    gl.texImage2D(gl.TEXTURE_2D, 0, gl.R8UI, columns, values.length / columns, 0, gl.RED_INTEGER, gl.UNSIGNED_BYTE, tones); // prettier-ignore
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.NEAREST);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MAG_FILTER, gl.NEAREST);
  }

  return {
    drawChart({ picture, palette, size, pixel }: Drawing): void {
      const { frame, style, flat } = picture;
      const tiles = flat?.tiles ?? null;
      gl.activeTexture(gl.TEXTURE0);
      if (tiles) uploadTiles(tiles);
      const { extents: e, eye, right, up } = frame;
      const [width, height] = [e.right - e.left, e.top - e.bottom];
      const [x, y] = tiles?.corner ?? [0, 0];
      const perPixel = height / size[1];
      gl.useProgram(chart.program);
      gl.bindTexture(gl.TEXTURE_2D, texture);
      gl.uniform1i(chart.uniform('uTiles'), 0);
      gl.uniform2f(chart.uniform('uMiddle'), eye[0] - x, eye[1] - y);
      gl.uniform2f(chart.uniform('uRight'), (right[0] * width) / 2, (right[1] * width) / 2);
      gl.uniform2f(chart.uniform('uUp'), (up[0] * height) / 2, (up[1] * height) / 2);
      gl.uniform1f(chart.uniform('uTile'), tiles?.size ?? 1);
      gl.uniform1f(chart.uniform('uUnitsPerPixel'), perPixel);
      gl.uniform1f(chart.uniform('uPixel'), pixel);
      gl.uniform1f(chart.uniform('uGridStep'), niceBelow(perPixel * pixel * (style === 'main' ? 40 : 30)));
      gl.uniform2i(chart.uniform('uCount'), tiles?.columns ?? 0, tiles ? tiles.values.length / tiles.columns : 0);
      gl.uniform1i(chart.uniform('uLast'), tiles?.bands.length ?? 0);
      for (const [name, color] of [
        ['uPlate', palette.sky],
        ['uWater', palette.water],
        ['uGrid', palette.grid],
        ['uRule', palette.rule],
        ['uLand', palette.tones[1]!],
        ['uInk', palette.ink],
      ] as const)
        gl.uniform3fv(chart.uniform(name), [...color]);
      cover();
    },

    drawGround(d: Drawing, scene: Scene): void {
      const { picture, palette, size, pixel, origin, hair } = d;
      const { frame, style } = picture;
      const ground = (grounds[style] ??= compile(gl, groundVertex, groundFragment(style), ['aCorner']));
      const { extents: e } = frame;
      const perspective = frame.kind === 'perspective';
      const k = perspective ? 1 / frame.near : 1;
      gl.useProgram(ground.program);
      gl.uniform4f(
        ground.uniform('uExtents'),
        ((e.right - e.left) / 2) * k,
        ((e.right + e.left) / 2) * k,
        ((e.top - e.bottom) / 2) * k,
        ((e.top + e.bottom) / 2) * k,
      );
      gl.uniform3fv(ground.uniform('uRight'), [...frame.right]);
      gl.uniform3fv(ground.uniform('uUp'), [...frame.up]);
      gl.uniform3fv(ground.uniform('uForward'), [...frame.forward]);
      gl.uniform3fv(ground.uniform('uEyePoint'), [...sub(frame.eye, origin)]);
      gl.uniform1i(ground.uniform('uPerspective'), perspective ? 1 : 0);
      gl.uniform1f(ground.uniform('uGround'), (picture.ground ?? 0) - origin[1]);
      gl.uniform1i(ground.uniform('uHasGround'), picture.ground === null ? 0 : 1);
      gl.uniform1f(ground.uniform('uFar'), style === 'main' && frame.far !== null ? frame.far : 1e30);
      gl.uniform1f(ground.uniform('uPixel'), pixel);
      gl.uniform1f(ground.uniform('uGridStep'), 500 * hair);
      const line = horizonLine(frame, [0, 1, 0]);
      if (line) {
        // The line's value divided by its slope per device pixel is a distance in device pixels.
        const slope = Math.hypot((line.across * 2) / size[0], (line.upward * 2) / size[1]) || 1;
        gl.uniform3f(ground.uniform('uHorizon'), line.constant / slope, line.across / slope, line.upward / slope);
      } else gl.uniform3f(ground.uniform('uHorizon'), 1e6, 0, 0);
      for (const [name, color] of [
        ['uSky', palette.sky],
        ['uWater', palette.water],
        ['uBeyond', palette.beyond],
        ['uGrid', palette.grid],
        ['uRule', palette.rule],
      ] as const)
        gl.uniform3fv(ground.uniform(name), [...color]);
      gl.uniform2f(ground.uniform('uGridOrigin'), origin[0], origin[2]);
      const blocks = scene.footprints.slice(0, 16);
      gl.uniform1i(ground.uniform('uBlockCount'), blocks.length);
      if (blocks.length) {
        gl.uniform4fv(
          ground.uniform('uBlocks'),
          blocks.flatMap((b) => b.slice(0, 4)),
        );
        gl.uniform2fv(
          ground.uniform('uTurns'),
          blocks.flatMap((b) => b.slice(4, 6)),
        );
      }
      gl.uniform1f(ground.uniform('uUnitsPerPixel'), (e.top - e.bottom) / size[1]);
      cover();
    },
  };
}
