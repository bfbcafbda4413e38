import type { Find } from '../task';

/** What the worksheet of Convert has, by its names and by other words of the trade. */
export const finds: readonly Find[] = [
  { name: 'World point to screen', at: '[data-section="to-screen"]', words: 'project worldToScreen projection' },
  { name: 'The probe’s point', at: 'input[aria-label^="Point "]', words: 'position coordinates world' },
  { name: 'Back to world', at: '[data-section="back"]', words: 'unproject screenToWorld ray raycast' },
  { name: 'Pixel that goes back', at: '[aria-label="Pixel x"]', words: 'screen coordinates unproject' },
  { name: 'The pointer’s way', at: '[data-section="pointer"]', words: 'mouse cursor client page DPI' },
  { name: 'Pointer on the page', at: '[aria-label="Page x"]', words: 'clientX clientY mouse position' },
  { name: 'Device pixels per CSS pixel', at: '[aria-label="Device pixels per css px"]', words: 'DPR devicePixelRatio retina scale' }, // prettier-ignore
  { name: 'Canvas on the page', at: '[aria-label="Canvas x"]', words: 'offset bounding client rectangle' },
  { name: 'Framebuffer scale', at: '[aria-label="Framebuffer scale"]', words: 'render scale resolution supersampling' },
  { name: 'Bars about the viewport', at: '[aria-label="Bar left"]', words: 'letterbox pillarbox viewport offset' },
  { name: 'Nodes', at: '[data-section="nodes"]', words: 'transform hierarchy scene graph stack normal matrix inverse transpose affine model matrix mvp' }, // prettier-ignore
  { name: 'Position of a node', at: 'input[aria-label^="Position "]', words: 'place translate translation' },
  { name: 'Rotation of a node', at: '[aria-label^="How the rotation"], [aria-label="Rotation"]', words: 'euler angles quaternion rotate' }, // prettier-ignore
  { name: 'Scale of a node', at: 'input[aria-label^="Scale "]', words: 'size stretch unequal' },
  { name: 'Parent of a node', at: '[aria-label="Parent"]', words: 'reparent attach hierarchy' },
  { name: 'Pivot', at: 'input[aria-label^="Pivot "]', words: 'turn rotate about origin' },
  {
    name: 'Scroll and seams',
    at: '[data-section="scroll"]',
    words: 'tiles tilemap texel snapping gaps auto-scroll',
    world: 'flat',
  },
  {
    name: 'Held to the screen',
    at: '[data-section="held"]',
    words: 'HUD overlay label anchor corner screen space UI safe area inset clamp edge marker',
  },
  { name: 'Hold a body under the pointer', at: '[data-section="back"]', words: 'follow mouse cursor crosshair' },
  { name: 'Points', at: '[data-section="points"]', words: 'CSV import table batch list' },
];
