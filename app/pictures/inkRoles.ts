/**
 * Every ink that a mark over a picture can be drawn in, by what it says. How an ink looks is said
 * in `inks.css` alone, as the class `ink-<role>`; the painter reads it from there.
 */
export const inkRoles = [
  // Words and figures.
  'name',
  'name-chosen',
  'name-strong',
  'name-muted',
  'note',
  'note-muted',
  'figure',
  'figure-water',
  'figure-brass',
  'figure-muted',
  'figure-bare',
  'ruler-figure',
  'tag-figure',
  'sounding',
  'error-note',
  // What belongs to names.
  'leader',
  'leader-dot',
  'edge-arrow',
  'edge-ring',
  // The camera's picture.
  'horizon',
  'far-line',
  'hairline',
  'hair-cross',
  'range-note',
  'tag-box',
  'anchor',
  // Cameras drawn from outside.
  'frustum-fill',
  'frustum-line',
  'frustum-ray',
  'gaze-axis',
  'eye',
  'other-frustum',
  'other-eye',
  // Measures.
  'dimension',
  'dimension-head',
  'extension',
  'sight-line',
  // The probe.
  'probe-halo',
  'probe-line',
  'probe-dot',
  // Verdicts.
  'inside',
  'crosses',
  'outside',
  // What tasks draw.
  'body-rectangle',
  'edge-marker',
  'engine-way',
  'engine-pointer',
  'ray',
  'ray-head',
  'ghost',
  'fault',
  'region',
  'region-edge',
  'path',
  'path-key',
  'second-reticle',
] as const;

export type InkRole = (typeof inkRoles)[number];

/** The class by which the style sheet knows an ink. */
export const inkClass = (ink: InkRole): string => `ink-${ink}`;
