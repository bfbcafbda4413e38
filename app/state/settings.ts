import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { Conventions } from '../../core/conventions/conventions';

export type Theme = 'paper' | 'night';

/** What can stand beside the plan. */
export type Corner = 'section' | 'screens' | 'points';

/** A set of conventions that the user has given a name. */
export interface OwnConventions {
  readonly name: string;
  readonly conventions: Conventions;
}

interface Settings {
  /** Null follows the system. */
  readonly theme: Theme | null;
  readonly chainWidth: number;
  readonly sheetWidth: number;
  /** What is shown enlarged in the centre, if anything. */
  readonly enlarged: 'main' | 'plan' | 'section' | null;
  /** What the user wants beside the plan, by the task's route. */
  readonly corners: Readonly<Record<string, Corner>>;
  readonly ownConventions: readonly OwnConventions[];
  /** Which parts of the worksheets are open, by their ids, where the user has said so. */
  readonly folds: Readonly<Record<string, boolean>>;
  /** The things to try that were done, and whether they are to be shown no more. */
  readonly tried: readonly string[];
  readonly triesAway: boolean;
  /** Whether the help lies beside the task. */
  readonly help: boolean;
}

/** How this person likes the place: kept beside the projects, no part of any. */
export const useSettings = create<Settings>()(
  persist(
    (): Settings => ({
      theme: null,
      chainWidth: 244,
      sheetWidth: 316,
      enlarged: null,
      corners: {},
      ownConventions: [],
      folds: {},
      tried: [],
      triesAway: false,
      help: false,
    }),
    {
      name: 'astrolabe-settings',
    },
  ),
);

const dark = window.matchMedia('(prefers-color-scheme: dark)');
export const themeInForce = (theme: Theme | null): Theme => theme ?? (dark.matches ? 'night' : 'paper');

/** Keeps the page's theme attribute in step with the choice and the system. */
export function followTheme(): void {
  const apply = () => {
    document.documentElement.dataset.theme = themeInForce(useSettings.getState().theme);
  };
  useSettings.subscribe(apply);
  dark.addEventListener('change', apply);
  apply();
}
