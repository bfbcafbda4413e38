import type { ImageAtlas } from '../../compose/imageAtlas';
import type { Program } from './gl';

/** The atlas of images, and the rectangle of each in it. */
export interface ImageTextures {
  readonly hasImages: boolean;
  /** Uploads an atlas that is not the one held. */
  upload(atlas: ImageAtlas | null): void;
  /** Binds both textures to the samplers `uAtlas` and `uRectangles` of the program in use. */
  bind(program: Program): void;
}

const [atlasUnit, rectanglesUnit] = [5, 6];

/** Creates the textures of images, empty. */
export function createImageTextures(gl: WebGL2RenderingContext): ImageTextures {
  const [atlasTexture, rectanglesTexture] = [gl.createTexture(), gl.createTexture()];
  let held: ImageAtlas | null = null;

  function select(unit: number, texture: WebGLTexture): void {
    gl.activeTexture(gl.TEXTURE0 + unit);
    gl.bindTexture(gl.TEXTURE_2D, texture);
  }
  function setNearest(): void {
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.NEAREST);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MAG_FILTER, gl.NEAREST);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_WRAP_S, gl.CLAMP_TO_EDGE);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_WRAP_T, gl.CLAMP_TO_EDGE);
  }

  return {
    get hasImages() {
      return held !== null;
    },
    upload(atlas) {
      if (atlas === held) return;
      held = atlas;
      if (!atlas) return;
      const { width, height, data, rectangles } = atlas;
      select(atlasUnit, atlasTexture);
      gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA8, width, height, 0, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(data.buffer)); // prettier-ignore
      setNearest();
      select(rectanglesUnit, rectanglesTexture);
      const numbers = new Float32Array(rectangles.flat());
      gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA32F, rectangles.length, 1, 0, gl.RGBA, gl.FLOAT, numbers);
      setNearest();
    },
    bind(program) {
      select(atlasUnit, atlasTexture);
      select(rectanglesUnit, rectanglesTexture);
      gl.uniform1i(program.uniform('uAtlas'), atlasUnit);
      gl.uniform1i(program.uniform('uRectangles'), rectanglesUnit);
    },
  };
}
