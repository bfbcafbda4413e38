import type { CodePart } from '../../../core/deliver/library';
import type { Naming } from '../../../core/deliver/print';

/** What each part is called. */
export const partWords: Readonly<Record<CodePart, string>> = {
  camera: 'matrices',
  worldToScreen: 'world to screen',
  screenToWorld: 'screen to world',
  ray: 'ray of a pixel',
  planes: 'frustum planes',
  billboard: 'billboards',
  spawn: 'out of sight',
  dollyZoom: 'dolly zoom',
  follow: 'follow',
  orderKeys: 'order keys',
  snap: 'snapping',
  visible: 'visible rectangle',
  integerZoom: 'integer zoom',
  fit: 'fit to screens',
  parallax: 'parallax layers',
  matrices: '2×3 matrices',
  matrices4: '4×4 matrix',
};
export const namingWords: Readonly<Record<Naming, string>> = {
  own: 'the language’s own',
  snake: 'snake_case',
  camel: 'camelCase',
  pascal: 'PascalCase functions',
};

/** Writes the name of a fault or of a kind of rows as words. */
export const nameWords = (name: string): string => name.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
