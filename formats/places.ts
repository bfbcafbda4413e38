import type { Problem } from '../core/reasons';

/**
 * Places in files and requests as people know them: by the names of bodies and cameras, and by what
 * the fields are called on the screen.
 */

/** Fields whose name on the screen is not the key with its words apart; empty where it adds nothing. */
const fields: Readonly<Record<string, string>> = {
  projection: '',
  orientation: '',
  shape: '',
  drive: '',
  verticalFov: 'vertical field of view',
  horizontalFov: 'horizontal field of view',
  diagonalFov: 'diagonal field of view',
  lookAt: 'the point looked at',
  target: 'the point looked at',
  forward: 'ahead',
  up: 'the up vector',
  devicePixelRatio: 'device pixels per CSS pixel',
  cssScale: 'the scale the canvas is shown at',
  framebufferScale: 'the framebuffer’s scale',
  near: 'the near limit',
  far: 'the far limit',
  ndc: 'NDC',
  pixelCentre: 'pixel centres',
  cameraPlace: 'the order of the cameras',
};
/** Lists whose entries have names of their own, and what one without a name is called. */
const named: Readonly<Record<string, string>> = {
  bodies: 'body',
  cameras: 'camera',
  snapshots: 'snapshot',
  queries: 'query',
};
/** Fields that hold numbers along axes: an index into them is a letter. */
const vectors =
  /^(position|rotation|quaternion|scale|size|target|lookAt|right|up|forward|shift|focus|anchor|pixel|value|handle|velocity|centre|axis|pivot|to|canvas)$/;

const wordsOf = (key: string): string => fields[key] ?? key.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();

/**
 * A path of a problem (`bodies[13].position[0]`) in the words of the screen (“Crane A”, position
 * x), the names taken from the value that it leads into. A path of another kind (`line 3`) is
 * itself; the empty path is empty.
 */
export function placeWords(path: string, value?: unknown): string {
  if (/\s/.test(path)) return path;
  const keys = path.match(/[^.[\]]+/g) ?? [];
  const words: string[] = [];
  let at: unknown = value;
  let before = '';
  for (const key of keys) {
    at = typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[key] : undefined;
    if (!/^\d+$/.test(key)) {
      if (!(key in named)) words.push(wordsOf(key));
    } else if (before in named) {
      const { name, id } = (at ?? {}) as { name?: unknown; id?: unknown };
      const own = [name, id].find((one) => typeof one === 'string' && one !== '');
      words.push(own === undefined ? `${named[before]} ${Number(key) + 1}` : `“${String(own)}”`);
    } else if (vectors.test(before) && Number(key) < 4)
      words.push(`${words.pop() ?? ''} ${'xyzw'[Number(key)]}`.trim());
    else words.push(`number ${Number(key) + 1}`);
    before = key;
  }
  const told = words.filter(Boolean);
  return told.length ? told.join(', ') : keys.map(wordsOf).join(' ');
}

/** Problems with their places in the words of the screen, in the sentences too. */
export const inWords = (problems: readonly Problem[], value: unknown): Problem[] =>
  problems.map((one) => {
    const path = placeWords(one.path, value);
    return { ...one, path, message: one.path ? one.message.replaceAll(one.path, path) : one.message };
  });
