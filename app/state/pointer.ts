import { create } from 'zustand';
import type { Vec2 } from '../../core/math/vec3';

/**
 * Where the pointer last was in the main picture, in CSS pixels of the viewport; and whether it is
 * there now. Never in the document.
 */
export const usePointer = create<{ css: Vec2; here: boolean }>(() => ({ css: [812, 344], here: false }));
