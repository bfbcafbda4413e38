import { expect, it, vi } from 'vitest';

it('two threads number their frames apart, and one thread never twice', async () => {
  const serials = async () => {
    // A module of its own, as a worker has it.
    vi.resetModules();
    const { frameOf } = await import('./frame');
    return Array.from({ length: 50 }, () => {
      const made = frameOf(
        {
          position: [0, 0, 0],
          orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
          projection: { kind: 'perspective', near: 1, far: 10, lens: { verticalFov: 1 } },
        },
        { x: 0, y: 0, width: 4, height: 3 },
      );
      if (!made.ok) throw new Error();
      return made.value.serial;
    });
  };
  const all = [...(await serials()), ...(await serials()), ...(await serials())];
  expect(new Set(all).size).toBe(all.length);
  expect(all.every(Number.isSafeInteger)).toBe(true);
});
