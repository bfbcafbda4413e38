import type * as z from 'zod';
import {
  choice,
  count,
  flag,
  group,
  length,
  list,
  optional,
  pixels,
  point,
  ratio,
  seconds,
  yawRate,
} from '../../../core/quantities/quantity';

/** The most test bodies. */
export const mostTestBodies = 1_000_000;
/** The most thresholds of size. */
export const mostThresholds = 8;

/** What Visibility keeps in the project. */
export const visibilityState = group({
  /** Pixels added round the viewport. */
  margin: pixels({ label: 'Margin', short: '', step: 5, source: 'margin', words: 'padding guard band outward' }),
  /** The verdict that tints bodies: the exact one, or that of the customary test of planes. */
  method: choice(['exact', 'planes']),
  /** The shortcut that is compared with the exact verdict. */
  shortcut: choice(['centre', 'sphere', 'corners']),
  /** Of the sphere, in bounding radii. */
  factor: ratio({ label: 'Radii of the sphere', short: '×', min: 0, step: 0.1, source: 'factor', isConditional: true }),
  /** Diameters at which a body changes its level, largest first. */
  thresholds: list(pixels({ short: '', above: 0 }), { max: mostThresholds }),
  /** By which share a diameter must pass a threshold before the level changes. */
  hysteresis: ratio({ label: 'Hysteresis', short: '', min: 0, max: 0.9, step: 0.05, source: 'hysteresis' }),
  /** The motion during which bodies enter and leave, and the tests a second. */
  over: group({
    kind: choice(['bodies', 'turn', 'walk', 'journey']),
    turnRate: yawRate({ label: 'Turn of the camera', short: 'turn', source: 'over', isConditional: true }),
    /** Scene units a second. */
    speed: length({ label: 'Speed of the camera', short: 'per s', source: 'over', isConditional: true }),
    seconds: seconds({ label: 'Seconds looked at', short: 'for', above: 0, max: 120, words: 'duration' }),
    rate: ratio({ label: 'Tests a second', short: '×', above: 0, words: 'frame rate' }),
    /** The fate of bodies that have left the view by a margin. */
    away: choice(['nothing', 'deactivate', 'remove']),
    awayMargin: pixels({ label: 'Margin of what is put away', short: '', min: 0, step: 5, isConditional: true }),
  }),
  /** A box of test bodies; null until one is asked for. */
  field: optional(
    group({
      /** Whether it is drawn and tested. */
      shown: flag(),
      arrangement: choice(['grid', 'scatter']),
      shape: choice(['sphere', 'box']),
      count: count({ label: 'How many test bodies', short: 'count', min: 1, max: mostTestBodies, step: 1000 }),
      /** The diameter, or the side. */
      size: length({ label: 'Size of the test bodies', short: 'size', above: 0 }),
      /** Opposite corners. */
      min: point({ label: 'Box of test bodies from', decimals: 1 }),
      max: point({ label: 'Box of test bodies to', decimals: 1 }),
      seed: count({ label: 'Seed of the test bodies', short: 'seed' }),
    }),
  ),
});

export type VisibilityState = z.infer<typeof visibilityState>;
export type OverTime = VisibilityState['over'];
export type TestField = NonNullable<VisibilityState['field']>;
