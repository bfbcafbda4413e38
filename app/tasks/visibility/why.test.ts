import { expect, it, vi } from 'vitest';

vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined, removeItem: () => undefined });
vi.stubGlobal('window', { matchMedia: () => ({ matches: false, addEventListener: () => undefined }) });
const { changeText, occlusionSentence, whySentence } = await import('./Why');

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

it('says what hides a body, with shares of its picture', () => {
  const covered = (visible: number, ...counts: number[]) =>
    occlusionSentence({ rays: 200, visible, behind: counts.map((rays, i) => ({ body: `B${i}`, rays })) }, (id) => id);
  expect(covered(200)).toBeNull();
  expect(covered(36, 164)).toBe('18 % of it shows, 82 % behind B0.');
  expect(covered(0, 164, 36)).toBe('82 % behind B0, 18 % behind B1.');
  expect(covered(0, 150, 30, 10, 10)).toBe('75 % behind B0, 15 % behind B1, the rest behind 2 more.');
  const step = { kind: 'step', direction: 'left', by: 3.2, eye: [0, 0, 0] } as const;
  expect(changeText(step, 'metres')).toBe('Move 3.2 metres left');
});
