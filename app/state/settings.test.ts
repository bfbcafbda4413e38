import { beforeEach, expect, it, vi } from 'vitest';

// A store of the browser's: the settings look for it when they are made.
const kept = new Map<string, string>();
vi.stubGlobal('localStorage', {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => void kept.set(key, value),
  removeItem: (key: string) => void kept.delete(key),
});
vi.stubGlobal('window', globalThis);
const { readSettings, settingsVersion } = await import('./settings');

beforeEach(() => kept.clear());

it('settings of the first version become those of the present: a pane beside the plan is a row of panes', () => {
  const read = readSettings(
    { theme: 'night', chainWidth: 250, corners: { frame: 'points' }, folds: { nodes: true } },
    1,
  );
  expect(read).toMatchObject({ theme: 'night', chainWidth: 250, panes: { frame: ['plan', 'points'] } });
  expect(read.folds).toEqual({ nodes: true });
});

it('settings of a wrong shape fall back part by part, and take nothing else along', () => {
  const read = readSettings(
    {
      theme: 'sepia',
      chainWidth: 'wide',
      sheetWidth: 400,
      panes: { frame: 'plan' },
      folds: 3,
      tried: ['a'],
      help: null,
    },
    settingsVersion,
  );
  expect(read).toMatchObject({ theme: null, chainWidth: 244, sheetWidth: 400, panes: {}, folds: {}, tried: ['a'] });
  expect(readSettings('text', settingsVersion)).toMatchObject({ theme: null, sheetWidth: 360 });
  expect(readSettings(null, 1)).toMatchObject({ panes: {} });
  // The usual width of older versions is none that was set.
  expect(readSettings({ sheetWidth: 316 }, 2).sheetWidth).toBe(360);
  expect(readSettings({ sheetWidth: 316 }, settingsVersion).sheetWidth).toBe(316);
});
