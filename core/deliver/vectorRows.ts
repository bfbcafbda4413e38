/* Rows of test vectors. */

/** What a row of test vectors asks an engine for. */
export const vectorKinds = ['view', 'projection', 'viewProjection', 'cameraToWorld', 'worldToScreen', 'screenToWorld', 'ray', 'worldToPixel', 'pixelToWorld', 'visible', 'integerZoom', 'layer'] as const; // prettier-ignore
export type VectorKind = (typeof vectorKinds)[number];
/** A row: the input and the expected answer, in the request's conventions. */
export interface VectorRow {
  readonly id: string;
  readonly kind: VectorKind;
  readonly input: readonly number[];
  /**
   * Sixteen numbers of a matrix; pixel x, y, depth and ahead of a point; a place; origin and direction. Of a 2D
   * camera six numbers of a matrix, pairs, the least and greatest x and y that are visible, or a zoom. Null where
   * there is no picture.
   */
  readonly expected: readonly number[] | null;
}
