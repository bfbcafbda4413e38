/*
 * All positions are relative to the scene's origin. Lines are drawn as quads of a width in device
 * pixels, softened by their own coverage.
 */

/**
 * Many like things, a transform and a tint each. All is fetched by the number of the vertex: to a
 * slow GPU an instance costs more than its corners, and a corner is worked out once for all of its
 * faces.
 */
export const instanceVertex = `#version 300 es
precision highp float; precision highp int; precision highp sampler2D; precision highp usampler2D;
uniform mat4 uViewProjection; uniform sampler2D uTransforms; uniform usampler2D uTints; uniform sampler2D uCorners;
uniform int uFirst; uniform int uEach;
out vec3 vPosition; flat out int vTint;
void main() {
  int one = uFirst + gl_VertexID / uEach; ivec2 at = ivec2(one % 256, one / 256);
  vec4 p = vec4(texelFetch(uCorners, ivec2(gl_VertexID % uEach, 0), 0).xyz, 1.0);
  ivec2 row = ivec2(3 * at.x, at.y);
  vPosition = vec3(dot(texelFetch(uTransforms, row, 0), p), dot(texelFetch(uTransforms, row + ivec2(1, 0), 0), p), dot(texelFetch(uTransforms, row + ivec2(2, 0), 0), p));
  vTint = int(texelFetch(uTints, at, 0).r);
  gl_Position = uViewProjection * vec4(vPosition, 1.0);
}`;

export const instanceFragment = `#version 300 es
precision highp float; precision highp int;
in vec3 vPosition; flat in int vTint;
uniform vec4 uEye; uniform vec3 uLight; uniform vec3 uTintTones[44]; uniform bool uLit;
out vec4 color;
void main() {
  // Faces are flat: the normal is square to any two ways across one.
  vec3 n = normalize(cross(dFdx(vPosition), dFdy(vPosition)));
  vec3 toEye = uEye.xyz - vPosition * uEye.w;
  if (dot(n, toEye) < 0.0) n = -n;
  float lit = uLit ? dot(n, uLight) : -1.0;
  int tone = lit > 0.72 ? 0 : lit > 0.42 ? 1 : lit > 0.12 ? 2 : 3;
  color = vec4(uTintTones[vTint * 4 + tone], 1.0);
}`;

/**
 * Discs and squares that face the viewer, a point each; what is smaller than a pixel is drawn as one.
 * With `QUADS` each is four corners of its own: for the few that are larger than points can be.
 * The clip volume reaches farther than the picture by uShrink, or a point would vanish with its
 * middle. In a drawing what is seen lies over what is not, whatever the height, or a full box would
 * show its lid alone.
 */
export const speckVertex = `#version 300 es
precision highp float; precision highp int;
in vec4 aPlace; in uint aTint;
uniform mat4 uViewProjection; uniform float uPerPixel, uLeast, uLargest; uniform vec2 uShrink; uniform bool uSeenOver;
#ifdef QUADS
uniform vec3 uRight, uUp;
out vec2 vCorner;
#endif
flat out int vTint; flat out float vWide;
void main() {
  vTint = int(aTint);
  vec4 middle = uViewProjection * vec4(aPlace.xyz, 1.0);
  float radius = max(aPlace.w, uLeast * uPerPixel * middle.w);
  vWide = 2.0 * radius / (uPerPixel * middle.w);
#ifdef QUADS
  vCorner = vec2(gl_VertexID == 1 || gl_VertexID == 2 ? 1.0 : -1.0, gl_VertexID >= 2 ? 1.0 : -1.0);
  gl_Position = uViewProjection * vec4(aPlace.xyz + (uRight * vCorner.x + uUp * vCorner.y) * radius, 1.0);
#else
  gl_PointSize = vWide;
  gl_Position = vWide > uLargest ? vec4(2.0, 2.0, 2.0, 1.0) : vec4(middle.xy * uShrink, middle.zw);
#endif
  // Tints 1 and 2 are of what is seen.
  if (uSeenOver && (vTint == 1 || vTint == 2)) gl_Position.z = -0.99 * gl_Position.w;
}`;

export const speckFragment = `#version 300 es
precision highp float; precision highp int;
flat in int vTint; flat in float vWide;
uniform vec3 uTintTones[44]; uniform bool uRound;
#ifdef QUADS
in vec2 vCorner;
#endif
out vec4 color;
void main() {
#ifdef QUADS
  vec2 at = vCorner;
#else
  vec2 at = vec2(2.0, -2.0) * (gl_PointCoord - 0.5);
#endif
  int tone = 1;
  if (uRound && vWide > 3.0) {
    float square = dot(at, at);
    if (square > 1.0) discard;
    float lit = dot(vec3(at, sqrt(1.0 - square)), vec3(-0.46, 0.7, 0.55));
    tone = lit > 0.72 ? 0 : lit > 0.42 ? 1 : lit > 0.12 ? 2 : 3;
  }
  color = vec4(uTintTones[vTint * 4 + tone], 1.0);
}`;

/** Triangles of one tint, hatched where wanted. */
export const triangleVertex = `#version 300 es
in vec3 aPosition;
uniform mat4 uViewProjection; uniform float uNearer;
void main() { gl_Position = uViewProjection * vec4(aPosition, 1.0); gl_Position.z -= uNearer * gl_Position.w; }`;

export const triangleFragment = `#version 300 es
precision highp float;
uniform vec3 uColor; uniform float uOpacity; uniform bool uHatch; uniform float uPixel;
out vec4 color;
void main() {
  float a = uOpacity;
  if (uHatch) {
    float s = mod(dot(gl_FragCoord.xy / uPixel, vec2(-0.6157, 0.788)), 5.0);
    a *= clamp(1.2 - abs(s - 2.5), 0.0, 1.0);
  }
  color = vec4(uColor, a);
}`;

/** Lines of one tint, drawn to a width: both ends at each of four corners. */
export const segmentVertex = `#version 300 es
in vec2 aCorner; in vec3 aStart; in vec3 aEnd;
uniform mat4 uViewProjection; uniform vec4 uGaze; uniform vec2 uViewport; uniform float uPixel, uWidth, uNear; uniform bool uPerspective;
out float vSide; out float vHalf; out float vAlong;
void main() {
  vec3 a = aStart, b = aEnd;
  vSide = 0.0; vHalf = 1.0; vAlong = 0.0; gl_Position = vec4(2.0, 2.0, 2.0, 1.0);
  float na = dot(uGaze.xyz, a) + uGaze.w - uNear, nb = dot(uGaze.xyz, b) + uGaze.w - uNear;
  if (uPerspective) {
    if (na <= 0.0 && nb <= 0.0) return;
    if (na <= 0.0) a = mix(a, b, (1e-4 - na) / (nb - na));
    else if (nb <= 0.0) b = mix(b, a, (1e-4 - nb) / (na - nb));
  }
  vec4 ca = uViewProjection * vec4(a, 1.0), cb = uViewProjection * vec4(b, 1.0);
  vec2 d = (cb.xy / cb.w - ca.xy / ca.w) * uViewport * 0.5; float len = length(d);
  vec2 along = len > 1e-4 ? d / len : vec2(1.0, 0.0);
  vHalf = max(uWidth * uPixel, 1.0) * 0.5 + 0.5;
  vSide = aCorner.y * vHalf; vAlong = aCorner.x * len;
  vec4 c = aCorner.x < 0.5 ? ca : cb;
  c.xy += vec2(-along.y, along.x) * vSide / (uViewport * 0.5) * c.w;
  c.z -= 0.0006 * c.w;
  gl_Position = c;
}`;

export const segmentFragment = `#version 300 es
precision highp float;
in float vSide; in float vHalf; in float vAlong;
uniform vec3 uColor; uniform bool uDash; uniform float uPixel;
out vec4 color;
void main() {
  if (uDash && mod(vAlong / uPixel, 8.0) > 5.0) discard;
  color = vec4(uColor, clamp(vHalf - abs(vSide), 0.0, 1.0));
}`;

/** A value for every cell over the picture, in the tint of the step that it falls in. */
export const fieldFragment = `#version 300 es
precision highp float; precision highp int; precision highp sampler2D;
in vec2 vPicture;
uniform sampler2D uValues; uniform ivec2 uSize; uniform float uSteps[8]; uniform int uStepCount; uniform vec4 uColors[9]; uniform float uOpacity;
uniform bool uHatch; uniform float uPixel;
out vec4 color;
void main() {
  vec2 at = vec2(vPicture.x * 0.5 + 0.5, 0.5 - vPicture.y * 0.5);
  float v = texelFetch(uValues, min(ivec2(at * vec2(uSize)), uSize - 1), 0).r;
  if (isnan(v)) discard;
  int k = 0;
  for (int i = 0; i < 8; i++) if (i < uStepCount && v >= uSteps[i]) k = i + 1;
  float a = uColors[k].a * uOpacity;
  if (uHatch) a *= mix(0.35, 1.0, clamp(1.3 - abs(mod(dot(gl_FragCoord.xy / uPixel, vec2(-0.7071, 0.7071)), 5.0) - 2.5), 0.0, 1.0));
  color = vec4(uColors[k].rgb, a);
}`;

/** Points: upright crosses of one size, a hair nearer to the eye than what they lie on. */
export const pointVertex = `#version 300 es
in vec3 aPosition;
uniform mat4 uViewProjection; uniform vec4 uGaze; uniform float uSize;
out float vAhead;
void main() {
  gl_Position = uViewProjection * vec4(aPosition, 1.0);
  gl_Position.z -= 0.0008 * gl_Position.w;
  gl_PointSize = uSize;
  vAhead = dot(uGaze.xyz, aPosition) + uGaze.w;
}`;

export const pointFragment = `#version 300 es
precision highp float;
in float vAhead;
uniform vec3 uColor; uniform vec3 uPaper; uniform float uFar; uniform float uSize; uniform float uPixel;
out vec4 color;
void main() {
  if (vAhead > uFar) discard;
  vec2 q = abs(gl_PointCoord - 0.5) * uSize;
  float off = min(q.x, q.y), along = max(q.x, q.y), room = uSize * 0.5 - uPixel;
  float line = clamp(0.5 + 0.6 * uPixel - off, 0.0, 1.0) * clamp(0.5 + room - along, 0.0, 1.0);
  float edge = clamp(0.5 + 1.4 * uPixel - off, 0.0, 1.0);
  color = vec4(mix(uPaper, uColor, line), max(line, 0.7 * edge));
}`;

/** Edges of bodies, and the strokes on the water. */
export const lineVertex = `#version 300 es
in vec2 aCorner;              // x: 0 at a, 1 at b; y: side
in vec3 aStart; in vec3 aEnd; in float aSilhouette; in float aFamily; // the whole line's, at each of its four corners
#ifdef PAINTED
in float aRank; flat out float vRank;
#endif
uniform mat4 uViewProjection; uniform vec4 uEye; uniform vec4 uGaze; // gaze: forward, and minus forward·eye
uniform vec2 uViewport; uniform float uPixel; uniform vec2 uWidths; uniform float uNear; uniform int uFamily;
uniform int uKind;            // 0 edges, 1 beyond the far limit, 2 strokes on the water
uniform vec3 uAcross; uniform float uLift; uniform float uUnit; // uUnit: a metre where the ground’s grid is ten of them
out float vSide; out float vHalf; out float vAlpha; out float vAhead; out float vAlong; out float vHeight; out float vToEyeY;
float aheadOf(vec3 p) { return dot(uGaze.xyz, p) + uGaze.w; }
void main() {
  vec3 a = aStart, b = aEnd;
  float width = uWidths.y; vAlpha = 1.0;
#ifdef PAINTED
  vRank = aRank;
#endif
  gl_Position = vec4(2.0, 2.0, 2.0, 1.0);
  vSide = 0.0; vHalf = 1.0; vAhead = 0.0; vAlong = 0.0; vHeight = 0.0; vToEyeY = 1.0;
  if (uKind == 2) {
    float f = aheadOf(a);
    float w = aEnd.x * (0.3 * uUnit + 0.16 * sqrt(max(f, 0.0) * uUnit));
    b = a + uAcross * w; a = a - uAcross * w;
    width = uWidths.x;
  } else {
    if (uFamily >= 0 && int(aFamily) != uFamily) return;
    if (uKind == 1 && aSilhouette < 0.5) return;
    width = aSilhouette > 0.5 ? uWidths.x : uWidths.y;
  }
  // A hair nearer to the eye than the faces they bound, in the same place of the picture.
  if (uEye.w > 0.5) { a = mix(a, uEye.xyz, 0.0016); b = mix(b, uEye.xyz, 0.0016); }
  else { a += uEye.xyz * uLift; b += uEye.xyz * uLift; }
  float na = aheadOf(a) - uNear, nb = aheadOf(b) - uNear;
  if (uEye.w > 0.5) {
    if (na <= 0.0 && nb <= 0.0) return;
    if (na <= 0.0) a = mix(a, b, (1e-4 - na) / (nb - na));
    else if (nb <= 0.0) b = mix(b, a, (1e-4 - nb) / (na - nb));
  }
  vec4 ca = uViewProjection * vec4(a, 1.0), cb = uViewProjection * vec4(b, 1.0);
  vec2 pa = ca.xy / ca.w * uViewport * 0.5, pb = cb.xy / cb.w * uViewport * 0.5;
  vec2 d = pb - pa; float len = length(d);
  vec2 along = len > 1e-4 ? d / len : vec2(1.0, 0.0);
  vec2 normal = vec2(-along.y, along.x);
  float px = max(width * uPixel, 1.0);
  vAlpha = min(1.0, width * uPixel);
  vHalf = px * 0.5 + 0.5;
  vSide = aCorner.y * vHalf;
  vec4 c = aCorner.x < 0.5 ? ca : cb;
  vec3 p = aCorner.x < 0.5 ? a : b;
  vec2 offset = normal * aCorner.y * vHalf + along * (aCorner.x < 0.5 ? -0.4 : 0.4);
  c.xy += offset / (uViewport * 0.5) * c.w;
  if (uKind == 1) c.z = c.w * 0.999999;
  vAlong = aCorner.x * len;
  vAhead = aheadOf(p);
  vHeight = p.y;
  vToEyeY = uEye.w > 0.5 ? uEye.y - p.y : uEye.y;
  gl_Position = c;
}`;

export const lineFragment = `#version 300 es
precision highp float; precision highp int;
in float vSide; in float vHalf; in float vAlpha; in float vAhead; in float vAlong; in float vHeight; in float vToEyeY;
uniform vec3 uColor; uniform float uOpacity; uniform float uFar; uniform int uKind; uniform float uGround; uniform float uPixel;
#ifdef PAINTED
flat in float vRank;
#endif
out vec4 color;
void main() {
#ifdef PAINTED
  gl_FragDepth = vRank;
#endif
  if (uKind == 1) { if (vAhead < uFar || mod(vAlong / uPixel, 4.0) > 1.5) discard; }
  else if (vAhead > uFar) discard;
  if (uKind != 2 && vHeight < uGround && vToEyeY > 0.0) discard;
  float coverage = clamp(vHalf - abs(vSide), 0.0, 1.0);
  color = vec4(uColor, coverage * vAlpha * uOpacity);
}`;

/** Covers the picture, or a part of it. The map of a 2D world has a ray of its own. */
export const coverVertex = `#version 300 es
in vec2 aCorner; out vec2 vPicture;
void main() { vPicture = aCorner; gl_Position = vec4(aCorner, 1.0, 1.0); }`;

/** Covers the picture, or a part of it, with the ray of each pixel: both of its parts are linear in the picture. */
export const groundVertex = `#version 300 es
in vec2 aCorner; out vec2 vPicture; out vec3 vOrigin; out vec3 vDirection;
uniform vec4 uExtents;        // half width, middle, half height, middle: right and up at one unit ahead
uniform vec3 uRight, uUp, uForward, uEyePoint; uniform bool uPerspective;
void main() {
  vPicture = aCorner;
  vec3 offset = uRight * (uExtents.x * aCorner.x + uExtents.y) + uUp * (uExtents.z * aCorner.y + uExtents.w);
  vOrigin = uPerspective ? uEyePoint : uEyePoint + offset;
  vDirection = uPerspective ? uForward + offset : uForward;
  gl_Position = vec4(aCorner, 1.0, 1.0);
}`;

/**
 * Sky and water. `SECTION` is the picture from the side. `LINED` adds the depth lines round bodies that stand
 * in the water. These are programs of their own, since a software GPU executes both sides of a branch.
 */
export const groundFragment = `#version 300 es
precision highp float; precision highp int;
in vec2 vPicture; in vec3 vOrigin; in vec3 vDirection;
uniform float uGround, uFar, uPixel; uniform bool uHasGround;
uniform vec3 uHorizon;        // constant, across, upward: device pixels above the horizon
uniform vec3 uSky, uWater, uBeyond, uGrid, uRule;
uniform vec2 uGridOrigin; uniform float uGridStep;
uniform vec4 uBlocks[16]; uniform vec2 uTurns[16]; uniform int uBlockCount; uniform float uUnitsPerPixel;
out vec4 color;
const float gridWidth = 0.6;
// How strongly the fine and the bold lines of the grid show, at a point where a unit is perUnit pixels.
vec2 gridLines(vec2 p, vec2 perUnit) {
  vec4 steps = uGridStep * vec4(1.0, 1.0, 5.0, 5.0), stepPixels = steps * perUnit.xyxy;
  vec4 q = abs(fract(p.xyxy / steps - 0.5) - 0.5) * stepPixels;
  vec2 dense = clamp(min(stepPixels.xz, stepPixels.yw) / 6.0 - 0.5, 0.0, 1.0);
  return clamp(0.5 + gridWidth * uPixel * 0.5 - min(q.xz, q.yw), 0.0, 1.0) * min(1.0, gridWidth * uPixel) * dense;
}
void main() {
  float t = uHasGround ? (uGround - vOrigin.y) / vDirection.y : -1.0;
  vec3 c = uSky;
#ifdef SECTION
    // Seen level: below the surface is water, with rules that widen downward.
    float below = (uGround - vOrigin.y) / uUnitsPerPixel;
    if (uHasGround && below > 0.0) {
      // Line i is 3 + 2.825 i + 0.425 i² below the surface: only the nearest one can cover the pixel.
      float i = clamp(round((sqrt(7.980625 + 1.7 * max(below / uPixel - 3.0, 0.0)) - 2.825) / 0.85), 0.0, 23.0);
      float d = abs(below - (3.0 + i * (2.825 + 0.425 * i)) * uPixel);
      c = mix(uWater, uGrid, 0.18 * clamp(uPixel * 0.5 + 0.5 - d, 0.0, 1.0));
    }
#else
  vec2 p = vOrigin.xz + vDirection.xz * t + uGridOrigin;
  vec2 perUnit = 1.0 / max(fwidth(p), vec2(1e-6));
  if (t > 0.0 && t < 1e7) {
    c = t > uFar ? uBeyond : uWater;
    vec2 shown = gridLines(p, perUnit) * vec2(0.24, 0.42);
    if (t <= uFar) c = mix(c, uGrid, max(shown.x, shown.y));
#ifdef LINED
    {
      float d = 1e9;
      for (int i = 0; i < 16; i++) {
        if (i >= uBlockCount) break;
        vec2 q = p - uBlocks[i].xy;
        q = vec2(dot(q, uTurns[i]), dot(q, vec2(-uTurns[i].y, uTurns[i].x)));
        vec2 e = abs(q) - uBlocks[i].zw;
        d = min(d, length(max(e, 0.0)) + min(max(e.x, e.y), 0.0));
      }
      float px = d / uUnitsPerPixel / uPixel;
      vec4 at = vec4(1.6, 3.5, 6.0, 9.0), strength = vec4(0.85, 0.6, 0.4, 0.25);
      if (px < 9.7) c = mix(uWater, c, px < 0.0 ? 1.0 : 0.0);
      for (int i = 0; i < 4; i++) c = mix(c, uGrid, strength[i] * clamp(1.0 - abs(px - at[i]) * uPixel, 0.0, 1.0));
    }
#endif
  } else if (uHasGround) {
    float s = (uHorizon.x + uHorizon.y * vPicture.x + uHorizon.z * vPicture.y) / uPixel;
    // Line i is 3.5 + 3.55 i + 0.55 i² above the horizon: only the nearest one can cover the pixel.
    float i = clamp(round((sqrt(12.6025 + 2.2 * max(s - 3.5, 0.0)) - 3.55) / 1.1), 0.0, 8.0);
    float y = 3.5 + i * (3.55 + 0.55 * i);
    c = mix(c, uRule, (0.62 - i * 0.06) * clamp(0.5 + 0.5 * uPixel - abs(s - y) * uPixel, 0.0, 1.0));
  }
#endif
  color = vec4(c, 1.0);
}`;

/**
 * The ground of a flat world: a map of square tiles in tones, or a bare grid. A tile is looked up
 * at the middle of every device pixel.
 */
export const chartFragment = `#version 300 es
precision highp float; precision highp int; precision highp usampler2D;
in vec2 vPicture;
uniform vec2 uMiddle, uRight, uUp; // from the map's corner to the middle of the picture; from there to its right and top edge
uniform float uTile, uUnitsPerPixel, uPixel, uGridStep; uniform ivec2 uCount; // tiles across and up; none without a map
uniform usampler2D uTiles;    // 255 is land, from 64 on an image, else the tone, deepest last
#ifdef IMAGES
precision highp sampler2D;
uniform sampler2D uAtlas, uRectangles;
#endif
uniform int uLast;            // the deepest tone
uniform vec3 uPlate, uWater, uGrid, uLand, uInk, uRule;
out vec4 color;
const uint outside = 254u, land = 255u;
uint at(ivec2 cell) {
  if (any(lessThan(cell, ivec2(0))) || any(greaterThanEqual(cell, uCount))) return outside;
  return texelFetch(uTiles, cell, 0).r;
}
void main() {
  vec2 p = uMiddle + uRight * vPicture.x + uUp * vPicture.y;
  if (uCount.x == 0) {
    vec2 q = abs(fract(p / uGridStep - 0.5) - 0.5) * uGridStep / uUnitsPerPixel;
    vec2 major = abs(fract(p / (5.0 * uGridStep) - 0.5) - 0.5) * 5.0 * uGridStep / uUnitsPerPixel;
    float fine = clamp(0.5 + 0.3 * uPixel - min(q.x, q.y), 0.0, 1.0), bold = clamp(0.5 + 0.3 * uPixel - min(major.x, major.y), 0.0, 1.0);
    color = vec4(mix(uPlate, uRule, max(fine * 0.45, bold)), 1.0);
    return;
  }
  vec2 q = p / uTile;
  ivec2 cell = ivec2(floor(q));
  uint here = at(cell);
  vec3 c = here == outside ? uPlate : here == land ? uLand : mix(uWater, uGrid, 0.085 * float(uLast - int(here)));
  vec2 f = fract(q);
  float px = uTile / uUnitsPerPixel;
  float fine = clamp(px / uPixel / 10.0 - 0.6, 0.0, 1.0) * 0.16;
  for (int i = 0; i < 4; i++) {
    ivec2 step_ = ivec2(i == 0 ? -1 : i == 1 ? 1 : 0, i == 2 ? -1 : i == 3 ? 1 : 0);
    float d = (i == 0 ? f.x : i == 1 ? 1.0 - f.x : i == 2 ? f.y : 1.0 - f.y) * px;
    uint there = at(cell + step_);
    bool shore = (here == land) != (there == land);
    bool border = here != there;
    float width = shore ? 0.95 : 0.6;
    // Half of a line lies on either side of the edge between two tiles.
    float line = clamp(0.5 + width * uPixel * 0.5 - d, 0.0, 1.0);
#ifdef IMAGES
    if (here >= 64u && here < outside || there >= 64u && there < outside) continue;
#endif
    c = mix(c, shore ? uInk : uGrid, line * (shore ? 1.0 : border ? 0.6 : here == outside ? 0.0 : fine));
  }
#ifdef IMAGES
  if (here >= 64u && here < outside) {
    vec4 rectangle = texelFetch(uRectangles, ivec2(int(here) - 64, 0), 0);
    vec4 texel = texelFetch(uAtlas, ivec2(rectangle.xy + min(floor(vec2(f.x, 1.0 - f.y) * rectangle.zw), rectangle.zw - 1.0)), 0);
    c = mix(uPlate, texel.rgb, step(0.5, texel.a));
  }
#endif
  color = vec4(c, 1.0);
}`;

/**
 * A plane picture that is wide enough, as one of equal angles: every place's bearing and elevation,
 * and where on the plane they are seen.
 */
export const anglesFragment = `#version 300 es
precision highp float; precision highp sampler2D;
in vec2 vPicture;
uniform sampler2D uPlane; uniform vec4 uSpan; // bearings at the left and right, elevations at the bottom and top
uniform vec4 uEdges;          // left, right, bottom, top of the plane picture at ahead 1
out vec4 color;
void main() {
  vec2 angle = mix(uSpan.xz, uSpan.yw, vPicture * 0.5 + 0.5);
  vec2 at = vec2(tan(angle.x), tan(angle.y) / cos(angle.x));
  color = vec4(texture(uPlane, (at - uEdges.xz) / (uEdges.yw - uEdges.xz)).rgb, 1.0);
}`;
