import { niceBelow } from '../../../../core/math/nice';
import { sub } from '../../../../core/math/vec3';
import { horizonLine } from '../../../../core/order/horizon';
import type { Tiles } from '../../../../formats/project';
import type { ImageAtlas } from '../../compose/imageAtlas';
import type { Scene } from '../../compose/scene';
import { tileTones } from '../../compose/tileTones';
import { chartFragment, coverVertex, groundFragment, groundVertex } from '../shaders';
import { attribute, compile, defining, fillBuffer, vertexArray, type Drawing, type Program } from './gl';
import type { ImageTextures } from './imageTextures';

/** The most bodies that have depth lines: the size of the shader's arrays. */
const mostFootprints = 16;

/** How far from a body its depth lines are drawn, in pixels of the page, with a margin. */
const liningWidth = 11;

/**
 * Returns triangles in NDC that cover the depth lines round footprints in an orthographic picture. The program
 * that draws these lines is costly and runs on their pixels only.
 */
function liningCover(
  { picture, pixel, size, origin, matrix, ground }: Drawing,
  footprints: Scene['footprints'],
): Float32Array {
  const { top, bottom } = picture.frame.extents;
  const margin = (liningWidth * pixel * (top - bottom)) / size[1];
  const corners = (footprint: readonly number[]): number[][] => {
    const [x, z, halfX, halfZ, cosine, sine] = footprint as [number, number, number, number, number, number];
    return [
      [-1, -1],
      [1, -1],
      [-1, 1],
      [-1, 1],
      [1, -1],
      [1, 1],
    ].map(([a, b]) => {
      const [along, across] = [a! * (halfX + margin), b! * (halfZ + margin)];
      const [px, pz] = [x + along * cosine - across * sine - origin[0], z + along * sine + across * cosine - origin[2]];
      return [0, 1].map(
        (row) => matrix[row]! * px + matrix[4 + row]! * ground + matrix[8 + row]! * pz + matrix[12 + row]!,
      );
    });
  };
  return new Float32Array(footprints.flatMap((one) => corners(one).flat()));
}

/** The picture from the side, the depth lines round bodies, or neither. */
type GroundVariant = 'SECTION' | 'LINED' | null;

/** The sky, the water with its grid, or the map of a 2D world, behind all bodies. */
export function groundLayer(gl: WebGL2RenderingContext, images: ImageTextures) {
  const programs = new Map<GroundVariant, Program>();
  function programOf(variant: GroundVariant): Program {
    const known = programs.get(variant);
    if (known) return known;
    const program = compile(gl, groundVertex, variant ? defining(variant, groundFragment) : groundFragment, [
      'aCorner',
    ]);
    programs.set(variant, program);
    return program;
  }
  const plainChart = compile(gl, coverVertex, chartFragment, ['aCorner']);
  let imageChart: Program | null = null;
  const buffer = gl.createBuffer();
  fillBuffer(gl, buffer, new Float32Array([-1, -1, 1, -1, -1, 1, 1, 1]));
  const array = vertexArray(gl, () => {
    gl.bindBuffer(gl.ARRAY_BUFFER, buffer);
    attribute(gl, 0, 2, 2, 0);
  });
  const coverBuffer = gl.createBuffer();
  const coverArray = vertexArray(gl, () => {
    gl.bindBuffer(gl.ARRAY_BUFFER, coverBuffer);
    attribute(gl, 0, 2, 2, 0);
  });
  const texture = gl.createTexture();
  let held: Tiles | null = null;
  let heldImages: ImageAtlas | null = null;

  const cover = () => {
    gl.bindVertexArray(array);
    gl.drawArrays(gl.TRIANGLE_STRIP, 0, 4);
  };

  function uploadTiles(tiles: Tiles, atlas: ImageAtlas | null): void {
    if (tiles === held && atlas === heldImages) return;
    [held, heldImages] = [tiles, atlas];
    const { values, columns } = tiles;
    const tones = tileTones(tiles, atlas);
    gl.bindTexture(gl.TEXTURE_2D, texture);
    gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1);
    gl.texImage2D(gl.TEXTURE_2D, 0, gl.R8UI, columns, values.length / columns, 0, gl.RED_INTEGER, gl.UNSIGNED_BYTE, tones); // prettier-ignore
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.NEAREST);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MAG_FILTER, gl.NEAREST);
  }

  return {
    drawChart({ picture, palette, size, pixel }: Drawing, atlas: ImageAtlas | null): void {
      const { frame, style, flat } = picture;
      const tiles = flat?.tiles ?? null;
      if (atlas) imageChart ??= compile(gl, coverVertex, defining('IMAGES', chartFragment), ['aCorner']);
      const chart = (atlas && imageChart) ?? plainChart;
      gl.activeTexture(gl.TEXTURE0);
      if (tiles) uploadTiles(tiles, atlas);
      const { extents: e, eye, right, up } = frame;
      const [width, height] = [e.right - e.left, e.top - e.bottom];
      const [x, y] = tiles?.corner ?? [0, 0];
      const perPixel = height / size[1];
      gl.useProgram(chart.program);
      if (atlas) images.bind(chart);
      gl.activeTexture(gl.TEXTURE0);
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
      const { frame, style } = d.picture;
      const blocks = style === 'plan' && d.picture.ground !== null ? scene.footprints.slice(0, mostFootprints) : [];
      // In perspective there is no cover: the costly program draws the whole picture.
      const isCovered = frame.kind === 'orthographic';
      selectGround(d, style === 'section' ? 'SECTION' : blocks.length && !isCovered ? 'LINED' : null, blocks);
      cover();
      if (!blocks.length || !isCovered) return;
      selectGround(d, 'LINED', blocks);
      const triangles = liningCover(d, blocks);
      gl.bindVertexArray(coverArray);
      fillBuffer(gl, coverBuffer, triangles, true);
      gl.drawArrays(gl.TRIANGLES, 0, triangles.length / 2);
    },
  };

  /** Selects a program of the ground and sets its uniforms. */
  function selectGround(d: Drawing, variant: GroundVariant, blocks: Scene['footprints']): void {
    const ground = programOf(variant);
    const { picture, palette, size, pixel, origin, hair } = d;
    const { frame, style } = picture;
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
  }
}
