import { conventionsSchema } from '../../core/request/conventions';
import * as z from 'zod';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { Conventions } from '../../core/conventions/conventions';
import type { Theme } from '../ui/themes';

export type { Theme };

/** A set of conventions that the user has given a name. */
export interface OwnConventions {
  readonly name: string;
  readonly conventions: Conventions;
}

export interface Settings {
  /** Null follows the system. */
  readonly theme: Theme | null;
  readonly chainWidth: number;
  readonly sheetWidth: number;
  /** What is shown alone in the centre, if anything: `main` or a pane. */
  readonly enlarged: string | null;
  /** The row of panes that the user wants, by the task's route. */
  readonly panes: Readonly<Record<string, readonly string[]>>;
  readonly ownConventions: readonly OwnConventions[];
  /** Which parts of the worksheets are open, by their ids, where the user has said so. */
  readonly folds: Readonly<Record<string, boolean>>;
  /** The things to try that were done, and whether they are to be shown no more. */
  readonly tried: readonly string[];
  readonly triesAway: boolean;
  /** Whether the ways to begin are shown: from the first visit until one is chosen. */
  readonly isWelcome: boolean;
  /** Whether the help lies beside the task. */
  readonly help: boolean;
  /** How far up and down the hand turns a camera, in degrees from level. */
  readonly pitchLimit: number;
}

export const usual: Settings = {
  theme: null,
  chainWidth: 244,
  sheetWidth: 360,
  enlarged: null,
  panes: {},
  ownConventions: [],
  folds: {},
  tried: [],
  triesAway: false,
  isWelcome: false,
  help: false,
  pitchLimit: 89.9,
};

/** Stands for all tasks whose row of panes nobody has set. */
export const everyTask = '*';

/**
 * The version of stored settings. 1 → 2: a pane beside the plan became a row of panes. 2 → 3: the usual width of the
 * worksheet was 316.
 */
export const settingsVersion = 3;

const own = z.object({ name: z.string(), conventions: conventionsSchema });
/**
 * Each part for itself: one that has a wrong shape falls back to what is usual, and takes no other
 * along.
 */
const schema = z.object({
  theme: z.enum(['paper', 'night']).nullable().catch(usual.theme),
  chainWidth: z.number().min(220).max(360).catch(usual.chainWidth),
  sheetWidth: z.number().min(300).max(2000).catch(usual.sheetWidth),
  enlarged: z.string().nullable().catch(usual.enlarged),
  panes: z.record(z.string(), z.array(z.string()).max(3)).catch({}),
  ownConventions: z.array(own).catch([]),
  folds: z.record(z.string(), z.boolean()).catch({}),
  tried: z.array(z.string()).catch([]),
  triesAway: z.boolean().catch(false),
  isWelcome: z.boolean().catch(false),
  help: z.boolean().catch(false),
  pitchLimit: z.number().positive().max(90).catch(usual.pitchLimit),
});

/** Settings as they were kept by a version, in the present one's shape. */
export function readSettings(kept: unknown, version: number): Settings {
  const given = typeof kept === 'object' && kept !== null ? (kept as Record<string, unknown>) : {};
  const corners = version < 2 && typeof given.corners === 'object' && given.corners !== null ? given.corners : {};
  const panes = Object.fromEntries(Object.entries(corners).map(([route, corner]) => [route, ['plan', corner]]));
  const enlarged = version < 2 && given.enlarged === undefined ? null : given.enlarged;
  const sheetWidth =
    version < 3 && given.sheetWidth === 316 ? usual.sheetWidth : (given.sheetWidth ?? usual.sheetWidth);
  return schema.parse({ ...usual, ...given, enlarged, sheetWidth, ...(version < 2 && { panes }) }) as Settings;
}

/** How this person likes the place: kept beside the projects, no part of any. */
export const useSettings = create<Settings>()(
  persist((): Settings => usual, {
    name: 'astrolabe-settings',
    version: settingsVersion,
    migrate: readSettings,
    // What was kept by this version is looked at too: a store can hold anything.
    merge: (kept) => readSettings(kept, settingsVersion),
  }),
);

/** Shows the usual panes again in tasks that show a pane. */
export const forgetPane = (pane: string): void =>
  void useSettings.setState(({ panes }) => ({
    panes: Object.fromEntries(Object.entries(panes).filter(([, row]) => !row.includes(pane))),
  }));

const dark = (): MediaQueryList => window.matchMedia('(prefers-color-scheme: dark)');
export const themeInForce = (theme: Theme | null): Theme => theme ?? (dark().matches ? 'night' : 'paper');

/** Keeps the page's theme attribute in step with the choice and the system. */
export function followTheme(): void {
  const apply = () => {
    document.documentElement.dataset.theme = themeInForce(useSettings.getState().theme);
  };
  useSettings.subscribe(apply);
  dark().addEventListener('change', apply);
  apply();
}
