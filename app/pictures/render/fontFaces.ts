import { base64Of } from '../../../formats/base64';
import type { UsedFont } from './svgSink';

/** A typeface as a style sheet declares it. */
export interface Face {
  readonly family: string;
  /** The `src` of the declaration, with complete addresses. */
  readonly source: string;
  readonly descriptors: {
    readonly weight: string;
    readonly style: string;
    readonly unicodeRange?: string;
  };
}

/** Returns the bytes of a file at an address. */
export const loadFile = async (address: string): Promise<Uint8Array> =>
  new Uint8Array(await (await fetch(address)).arrayBuffer());

const coversAny = (range: string | undefined, letters: ReadonlySet<string>): boolean =>
  !range ||
  !letters.size ||
  range.split(',').some((part) => {
    const [, from, to] = /U\+([0-9A-F]+)(?:-([0-9A-F]+))?/i.exec(part) ?? [];
    const [low, high] = [Number.parseInt(from ?? '0', 16), Number.parseInt(to ?? from ?? '0', 16)];
    return [...letters].some((letter) => letter.codePointAt(0)! >= low && letter.codePointAt(0)! <= high);
  });

/**
 * Returns `@font-face` rules for the fonts in use, with their files as data.
 *
 * @param load - returns the bytes of a font file in woff2
 */
export async function embeddedFontRules(
  faces: readonly Face[],
  fonts: readonly UsedFont[],
  load: (address: string) => Promise<Uint8Array>,
): Promise<string> {
  const needed = fonts.flatMap(({ family, weight, style, letters }) =>
    faces.filter(
      (face) =>
        face.family === family &&
        face.descriptors.weight === String(weight) &&
        face.descriptors.style === style &&
        coversAny(face.descriptors.unicodeRange, letters),
    ),
  );
  const rules = needed.map(async ({ family, source, descriptors: { weight, style, unicodeRange } }) => {
    const [, address] = /url\("([^"]+)"\)/.exec(source) ?? [];
    if (!address) return '';
    const range = unicodeRange ? `unicode-range:${unicodeRange};` : '';
    const data = base64Of(await load(address));
    return `@font-face{font-family:"${family}";font-weight:${weight};font-style:${style};${range}src:url(data:font/woff2;base64,${data}) format("woff2");}`;
  });
  return (await Promise.all(rules)).join('');
}

const font = (family: string, weight: number): UsedFont => ({ family, weight, style: 'normal', letters: new Set() });
/** The fonts of a report's own text. Its pictures bring theirs. */
export const reportFonts: readonly UsedFont[] = [
  font('IBM Plex Sans', 400),
  font('IBM Plex Sans', 600),
  font('IBM Plex Mono', 400),
  font('Spectral', 600),
];
