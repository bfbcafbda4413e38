import { useCallback, useEffect, useState, type ComponentType, type KeyboardEvent, type ReactNode } from 'react';

import { loadPart } from './parts';

/* Menus and pop-overs whose code is loaded when the page is idle, or when they are first opened. */

/** What a trigger looks like; the same for the button that stands in and for the loaded trigger. */
export interface TriggerLook {
  readonly className: string;
  readonly children: ReactNode;
  readonly 'aria-label'?: string | undefined;
  readonly title?: string | undefined;
  readonly 'data-source'?: string | undefined;
}

/** A loaded menu or pop-over: its own trigger, open as soon as it is mounted. */
export type Opened<Props> = ComponentType<Props & { readonly trigger: TriggerLook }>;

type Load<Props> = () => Promise<{ readonly default: Opened<Props> }>;

const loads: (() => Promise<unknown>)[] = [];
/** Loads every deferred menu and pop-over. */
export const loadDeferred = (): Promise<unknown> => Promise.all(loads.map((load) => load())).catch(() => undefined);

/**
 * Creates a component that is a plain button until it is first opened, and then the loaded menu or pop-over.
 *
 * @param popup - what the button opens, for assistive technology
 * @param load - loads the component, which must render a trigger that looks the same and start open
 * @param look - the trigger's look, from the component's props
 */
export function deferred<Props extends object>(
  popup: 'menu' | 'dialog',
  load: Load<NoInfer<Props>>,
  useLook: (props: Props) => TriggerLook,
) {
  loads.push(load);
  return function Deferred(props: Props & { readonly openOn?: string }) {
    const { openOn } = props;
    const look = useLook(props);
    const [Loaded, setLoaded] = useState<Opened<Props> | null>(null);
    // After a failed load the next press tries again.
    const open = useCallback(() => void loadPart(load).then((module) => module && setLoaded(() => module.default)), []);
    useEffect(() => {
      if (openOn === undefined || Loaded) return;
      window.addEventListener(openOn, open);
      return () => window.removeEventListener(openOn, open);
    }, [openOn, Loaded, open]);
    if (Loaded) return <Loaded {...props} trigger={look} />;
    const onKeyDown = (event: KeyboardEvent) => {
      if (popup !== 'menu' || event.key !== 'ArrowDown') return;
      event.preventDefault();
      open();
    };
    return (
      <button
        type="button"
        {...look}
        aria-haspopup={popup}
        aria-expanded={false}
        onClick={open}
        onKeyDown={onKeyDown}
      />
    );
  };
}
