/** What a frame of an engine does, in the order that is right for most. */
export const frameStages = [
  'input',
  'bodies',
  'camera',
  'followers',
  'billboards',
  'spawns',
  'picking',
  'draw',
] as const;
export type FrameStage = (typeof frameStages)[number];

/** What a stage works with, by how many frames it is old. */
export interface Staleness {
  readonly stage: FrameStage;
  /** Of the camera's place: how old that camera is, and what it followed when it was made. */
  readonly camera: number;
  readonly bodies: number;
}

/**
 * What each stage of a frame works with when the stages run in an order: things made earlier in the
 * frame are of this frame, others of the frame before. A camera is as old besides as what it was made
 * from: the input (steered), the bodies (following) or nothing but the time (`source`). Stages come
 * back in the order given, which names each once.
 */
export function stalenessOf(order: readonly FrameStage[], source: 'input' | 'bodies' | null): readonly Staleness[] {
  const place = (stage: FrameStage) => order.indexOf(stage);
  const cameraIsOld = source !== null && place(source) > place('camera') ? 1 : 0;
  return order.map((stage): Staleness => {
    const at = place(stage);
    const own = stage === 'camera' || place('camera') < at ? 0 : 1;
    return { stage, camera: own + cameraIsOld, bodies: stage === 'bodies' || place('bodies') < at ? 0 : 1 };
  });
}
