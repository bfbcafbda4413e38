import { createUseGesture, dragAction, wheelAction } from '@use-gesture/react';

/** Drags and wheel turns of an element; the library's other gestures stay out of the bundle. */
export const useDragAndWheel = createUseGesture([dragAction, wheelAction]);
