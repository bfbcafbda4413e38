/** Whether bytes begin as a .glb does. */
export const isGlb = (bytes: Uint8Array): boolean => new TextDecoder().decode(bytes.subarray(0, 4)) === 'glTF';
