/* Positions are relative to the scene's origin. */

/**
 * Meshes in their own space. Each body's transform is four texels of a texture, its tint one byte of another.
 * Faces are flat: their colour is computed at the vertices, since fragments are what a software GPU spends
 * its time on.
 */
export const faceVertex = `#version 300 es
precision highp float; precision highp int; precision highp sampler2D; precision highp usampler2D;
in vec3 aPosition; in vec3 aNormal; in float aTone; in float aFamily; in float aBody;
uniform mat4 uViewProjection; uniform sampler2D uTransforms; uniform usampler2D uTints;
uniform vec4 uEye;            // xyz the eye with w 1, or minus the view direction with w 0
uniform vec3 uLight; uniform vec3 uTones[20]; uniform vec3 uTintTones[44]; uniform bool uHatch; uniform int uFamily;
#ifdef PAINTED
in float aRank; uniform usampler2D uLeftOut; flat out float vRank; flat out int vIsLeftOut;
#endif
out float vHeight; flat out vec3 vColor; flat out int vIsHatched;
#ifdef IMAGES
out vec2 vPlace; flat out int vImage; flat out float vTinted;
#endif
void main() {
  vHeight = 0.0; vColor = vec3(0.0); vIsHatched = 0;
#ifdef IMAGES
  vPlace = vec2(0.0); vImage = 0; vTinted = 0.0;
#endif
#ifdef PAINTED
  vRank = aRank; vIsLeftOut = 0;
#endif
  gl_Position = vec4(2.0, 2.0, 2.0, 1.0);
  if (uFamily >= 0 && int(aFamily) != uFamily) return;
  int body = int(aBody); ivec2 at = ivec2(4 * (body % 256), body / 256);
  vec4 rx = texelFetch(uTransforms, at, 0), ry = texelFetch(uTransforms, at + ivec2(1, 0), 0);
  vec4 rz = texelFetch(uTransforms, at + ivec2(2, 0), 0), lay = texelFetch(uTransforms, at + ivec2(3, 0), 0);
  vec4 p = vec4(aPosition, 1.0);
  vec3 position = vec3(dot(rx, p), dot(ry, p), dot(rz, p));
  // A normal is a covector: the cofactors of the rows transform it.
  vec3 normal = normalize(vec3(dot(cross(ry.xyz, rz.xyz), aNormal), dot(cross(rz.xyz, rx.xyz), aNormal), dot(cross(rx.xyz, ry.xyz), aNormal)));
  if (lay.x > 0.5) position.z = lay.y;
  float facing = dot(normal, uEye.xyz - position * uEye.w);
#ifdef PAINTED
  // By the winding in the world: on the screen it is the same for all faces towards the eye.
  vIsLeftOut = int(texelFetch(uLeftOut, ivec2(body % 256, body / 256), 0).r) == (facing > 0.0 ? 1 : 2) ? 1 : 0;
#endif
  float lit = facing < 0.0 ? -dot(normal, uLight) : dot(normal, uLight);
  int shade = lit > 0.72 ? 0 : lit > 0.42 ? 1 : lit > 0.12 ? 2 : 3;
  int tone = int(aTone), tint = int(texelFetch(uTints, ivec2(body % 256, body / 256), 0).r);
  if (tint > 0) vColor = uTintTones[tint * 4 + shade]; else vColor = uTones[tone * 4 + shade];
  vIsHatched = uHatch && shade == 3 && (tone < 2 || tint > 0) ? 1 : 0;
#ifdef IMAGES
  // Sprites are quads of side 1 about their middle.
  vPlace = aPosition.xy + 0.5; vImage = int(lay.z); vTinted = tint > 0 ? 1.0 : 0.0;
#endif
  vHeight = position.y;
  gl_Position = uViewProjection * vec4(position, 1.0);
}`;

export const faceFragment = `#version 300 es
precision highp float; precision highp int;
in float vHeight; flat in vec3 vColor; flat in int vIsHatched;
uniform vec4 uEye; uniform vec3 uInk; uniform vec3 uPaper; uniform float uGround; uniform float uPixel; uniform float uDim;
#ifdef PAINTED
flat in float vRank; flat in int vIsLeftOut; uniform bool uRanked; uniform bool uGhost;
#endif
#ifdef IMAGES
precision highp sampler2D;
in vec2 vPlace; flat in int vImage; flat in float vTinted; uniform sampler2D uAtlas, uRectangles;
#endif
out vec4 color;
void main() {
  if (vHeight < uGround && uEye.y - vHeight * uEye.w + (uEye.w > 0.5 ? 0.0 : 1e-6) > 0.0) discard;
#ifdef PAINTED
  gl_FragDepth = uRanked ? vRank : gl_FragCoord.z;
  if ((vIsLeftOut == 1) != uGhost) discard;
  if (uGhost) {
    if (mod(dot(gl_FragCoord.xy / uPixel, vec2(0.7071, 0.7071)), 5.0) > 1.1) discard;
    color = vec4(mix(uPaper, uInk, 0.75 * uDim), 1.0);
    return;
  }
#endif
  vec3 c = vColor;
#ifdef IMAGES
  if (vImage > 0) {
    vec4 rectangle = texelFetch(uRectangles, ivec2(vImage - 1, 0), 0);
    vec2 texelPlace = clamp(floor(vec2(vPlace.x, 1.0 - vPlace.y) * rectangle.zw), vec2(0.0), rectangle.zw - 1.0);
    vec4 texel = texelFetch(uAtlas, ivec2(rectangle.xy + texelPlace), 0);
    if (texel.a < 0.5) discard;
    color = vec4(mix(uPaper, mix(texel.rgb, vColor, 0.6 * vTinted), uDim), 1.0);
    return;
  }
#endif
  if (vIsHatched == 1) {
    vec2 p = gl_FragCoord.xy / uPixel;
    float s = mod(dot(p, vec2(-0.6157, 0.788)), 3.0);
    float line = clamp(0.8 - abs(s - 1.5), 0.0, 0.6);
    c = mix(c, uInk, 0.4 * line / 0.6);
  }
  color = vec4(mix(uPaper, c, uDim), 1.0);
}`;
