import { expect, it } from 'vitest';
import { activeDrag, endDrag, onDragEnd } from './activeDrag';

it('whoever asks after the end of a drag finds it over, in whichever order they asked', () => {
  const heard: string[] = [];
  const ends = ['first', 'second'].map((name) => onDragEnd(() => void heard.push(`${name} ${String(activeDrag())}`)));
  endDrag();
  expect(heard).toEqual(['first null', 'second null']);
  ends[0]!();
  endDrag();
  expect(heard).toHaveLength(3);
});
