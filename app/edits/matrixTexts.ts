import type { MatrixName } from '../../core/conventions/codec';
import { affineOf } from '../../core/request/affine2d';
import { matrixNumbers } from '../../core/request/affineMatrices';
import { camera2dNow } from '../state/cameraNow';
import { currentMoment } from '../state/tempo';
import { plain } from '../ui/figures';
import { copy } from '../ui/notices';

const listText = (list: readonly number[]) => `[${list.map(plain).join(', ')}]`;
const copyList = (name: string, list: readonly number[], storage: string) =>
  void copy(listText(list), `${name}, ${storage}`);

/** A text of a matrix to copy. */
export interface MatrixText {
  readonly label: string;
  readonly text: string;
  /** What the notice says was copied. */
  readonly what: string;
}

/**
 * Returns the texts of a matrix: its list in memory order, the rows of the formula with tabs between, and JSON.
 *
 * @param name - as in “the view matrix”
 * @param rows - rows as they are in the formula
 * @param list - the numbers in memory order
 */
export function matrixTexts(
  name: string,
  rows: readonly (readonly number[])[],
  list: readonly number[],
  { vectors, storage }: { readonly vectors: string; readonly storage: string },
): readonly MatrixText[] {
  return [
    { label: 'Copy list', text: listText(list), what: `${name}, ${storage}` },
    { label: 'Copy rows', text: rows.map((row) => row.map(plain).join('\t')).join('\n'), what: `${name} as rows` },
    { label: 'Copy JSON', text: JSON.stringify({ name, vectors, storage, values: list }), what: `${name} as JSON` },
  ];
}

/** Shortens a text to its beginning, on one line. */
export const exampleOf = (text: string, length = 44): string => {
  const line = text.replaceAll('\t', '  ').replaceAll('\n', ' ⏎ ');
  return line.length > length ? `${line.slice(0, length)}…` : line;
};

/** Names of the camera's matrices. */
export const matrixNames: Readonly<Record<MatrixName, string>> = {
  view: 'view',
  projection: 'projection',
  viewProjection: 'view projection',
  cameraToWorld: 'camera to world',
  inverseProjection: 'inverse projection',
  inverseViewProjection: 'inverse view projection',
};
const trade: Partial<Record<MatrixName, string>> = {
  view: 'look at lookAt world to camera',
  projection: 'perspective orthographic P',
  viewProjection: 'mvp vp model view projection world to clip',
  cameraToWorld: 'inverse view transform',
};

/** Returns the search's commands that copy a matrix of the camera, in memory order. */
export const matrixCommands = (isFlat: boolean) =>
  isFlat
    ? [
        {
          name: 'Copy the world-to-pixel matrix',
          words: 'affine view camera 2x3 3x3 transform mvp',
          run: () => {
            const { codec } = currentMoment();
            const list = matrixNumbers(affineOf(camera2dNow(currentMoment()), codec), 6, codec.listsColumns);
            copyList('the world-to-pixel matrix', list, codec.conventions.matrix.storage);
          },
        },
      ]
    : (Object.keys(matrixNames) as MatrixName[]).map((which) => ({
        name: `Copy the ${matrixNames[which]} matrix`,
        words: trade[which] ?? '',
        run: () => {
          const { codec, frame } = currentMoment();
          const list = codec.toList(codec.matrix(frame, which));
          copyList(`the ${matrixNames[which]} matrix`, list, codec.conventions.matrix.storage);
        },
      }));
