import { expect, it, vi } from 'vitest';

vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined, removeItem: () => undefined });
vi.stubGlobal('window', { matchMedia: () => ({ matches: false, addEventListener: () => undefined }) });
const { changeText, whySentence } = await import('./Why');

it('says why a body is not seen in a sentence, and a change with the number that it makes', () => {
  const off = (across: number, upward: number) =>
    whySentence('Lamp', { kind: 'offPicture', across, upward }, 'metres', (id) => id);
  expect(off(12, 160.1)).toBe('Lamp lies off the picture, 12.0 px to the right and 160.1 px above.');
  expect(off(0, -3)).toBe('Lamp lies off the picture, 3.0 px below.');
  expect(off(0, 0)).toBe('Lamp passes by a corner of the picture.');
  const turn = { kind: 'turn', angle: (7.13 * Math.PI) / 180, yaw: 0, pitch: 0 } as const;
  expect(changeText(turn, 'metres')).toBe('Turn by 7.13°');
  expect(changeText({ kind: 'back', by: 47.51, eye: [0, 0, 0] }, 'metres')).toBe('Move back 47.51 metres');
});
