import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { Conventions } from '../../core/conventions/conventions';

export type Theme = 'paper' | 'night';

/** What can stand beside the plan. */
export type Corner = 'section' | 'screens';

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
