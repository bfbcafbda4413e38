import { lazy, Suspense, type ComponentType } from 'react';

/** Creates a component that is loaded when it is first shown, and shows nothing until then. */
export function lazyPart<Props extends object>(load: () => Promise<ComponentType<Props>>): ComponentType<Props> {
  const Part = lazy(async () => ({ default: await load() }));
  return function LazyPart(props: Props) {
    return (
      <Suspense fallback={null}>
        <Part {...props} />
      </Suspense>
    );
  };
}
