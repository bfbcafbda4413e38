import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { Face } from '../app/pictures/render/fontFaces';
import assets from './assets.json';

/* Files that pictures and reports need. The build copies them beside the bundle (`scripts/lib/build.mjs`). */

type Asset = keyof typeof assets;

const require = createRequire(import.meta.url);

/** Returns the bytes of an asset: the copy beside the bundle, or in the sources' tree the package's own. */
export async function readAsset(name: Asset): Promise<Uint8Array> {
  const copy = new URL(`./assets/${name}`, import.meta.url);
  return readFile(existsSync(copy) ? copy : require.resolve(assets[name]));
}

const faceNames = { sans: 'IBM Plex Sans', mono: 'IBM Plex Mono', serif: 'Spectral' } as const;

/** The typefaces of pictures and reports; the address of each is the name of its asset. */
export const faces: readonly Face[] = (Object.keys(assets) as Asset[]).flatMap((name) => {
  const [, use, weight, style = 'normal'] = /^(sans|mono|serif)-(\d+)(?:-(italic))?\.woff2$/.exec(name) ?? [];
  if (!use || !weight) return [];
  return [
    { family: faceNames[use as keyof typeof faceNames], source: `url("${name}")`, descriptors: { weight, style } },
  ];
});

/** Returns the bytes of a typeface's file by its address in `faces`. */
export const readFace = (address: string): Promise<Uint8Array> => readAsset(address as Asset);
