/* The binary container of glTF (section 4.4 of its specification): a header and chunks, little-endian. */

const magic = 0x46546c67;

/** Whether bytes begin as a .glb does. */
export const isGlb = (bytes: Uint8Array): boolean => new TextDecoder().decode(bytes.subarray(0, 4)) === 'glTF';

/** A document, as JSON, and the bytes of its one buffer, null for none, as the bytes of a .glb. */
export function glbOf(json: string, buffer: Uint8Array | null): Uint8Array {
  const padded = (length: number) => 4 * Math.ceil(length / 4);
  const chunks = [
    { kind: 0x4e4f534a, bytes: new TextEncoder().encode(json), filler: 0x20 },
    ...(buffer ? [{ kind: 0x004e4942, bytes: buffer, filler: 0 }] : []),
  ];
  const total = chunks.reduce((sum, chunk) => sum + 8 + padded(chunk.bytes.length), 12);
  const out = new Uint8Array(total);
  const view = new DataView(out.buffer);
  [magic, 2, total].forEach((v, i) => view.setUint32(4 * i, v, true));
  let at = 12;
  for (const { kind, bytes, filler } of chunks) {
    view.setUint32(at, padded(bytes.length), true);
    view.setUint32(at + 4, kind, true);
    out.fill(filler, at + 8, at + 8 + padded(bytes.length));
    out.set(bytes, at + 8);
    at += 8 + padded(bytes.length);
  }
  return out;
}
