import type { ConventionCodec } from '../conventions/codec';
import { version } from '../version';
import { codePartsOf } from './library';
import type { CodeWish } from './codeWish';

const axes = ({ right, up, forward }: { readonly right: string; readonly up: string; readonly forward: string }): string => `right ${right}, up ${up}, forward ${forward}`; // prettier-ignore

/** Writes the options of `astrolabe code` that emit a wish, without those at their default. */
export function codeOptions({ language, parts, number, naming, constants, scope }: CodeWish, isFlat: boolean): string {
  const isAll = codePartsOf(isFlat).every((part) => parts.includes(part));
  return [
    `--language ${language}`,
    ...(isAll ? [] : [`--parts ${parts.join(',')}`]),
    ...(number === 'double' ? [] : [`--number ${number}`]),
    ...(naming === 'own' ? [] : [`--naming ${naming}`]),
    ...(constants ? [] : ['--parameters']),
    ...(scope ? [`${language === 'C' ? '--prefix' : '--namespace'} ${scope}`] : []),
  ].join(' ');
}

/**
 * Writes the first comment of exported code: the program's version, the command that writes the code again, and the
 * conventions.
 *
 * @param mark - the comment mark of the language
 */
export function fileComment(
  wish: CodeWish,
  { conventions: c }: ConventionCodec,
  isFlat: boolean,
  mark: string,
): string {
  const { world, view, ndc, screen, matrix, angles } = c;
  return [
    `Camera mathematics by Astrolabe ${version}. Written by:`,
    `  astrolabe code REQUEST.json ${codeOptions(wish, isFlat)}`,
    `World: ${axes(world)}. View: ${axes(view)}.`,
    `NDC: y ${ndc.up === '+y' ? 'up' : 'down'}, depth ${ndc.near} at near and ${ndc.far} at far. Screen: from the ${screen.origin.replace('-', ' ')}, pixel centres at ${screen.pixelCentre}.`, // prettier-ignore
    `Matrices: ${matrix.vectors} vectors, ${matrix.storage}. Angles: ${angles.unit}, yaw ${angles.yaw}, pitch ${angles.pitch}, roll ${angles.roll} positive.`, // prettier-ignore
    ...(wish.language === 'C' ? ['Needs C99.'] : wish.language === 'C++' ? ['Needs C++11.'] : []),
  ]
    .map((line) => `${mark} ${line}\n`)
    .join('');
}
