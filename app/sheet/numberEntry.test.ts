import { describe, expect, it } from 'vitest';
import { emptyEntry, entryAt, focusEntry, leaveEntry, showProblem, stepEntry, typeEntry } from './numberEntry';

const problem = 'Near lies above 0.';

describe('the entry of a number field', () => {
  it('keeps a rejected text after the field is left, with its sentence', () => {
    const typed = typeEntry('0', problem);
    expect(typed.isShown).toBe(false);
    const left = leaveEntry(typed, 0.5);
    expect(left).toEqual({ text: '0', problem, isShown: true, leftAt: 0.5 });
    expect(entryAt(left, 0.5)).toBe(left);
    // Focus returns to the typed text.
    expect(focusEntry(left, '0.5')).toMatchObject({ text: '0', problem, leftAt: null });
  });

  it('drops a rejected text when the value changes by other means, but not while it is edited', () => {
    expect(entryAt(leaveEntry(typeEntry('0', problem), 0.5), 2)).toBe(emptyEntry);
    const typed = typeEntry('0', problem);
    expect(entryAt(typed, 2)).toBe(typed);
  });

  it('drops a text that was taken, and one that is blank', () => {
    expect(leaveEntry(typeEntry('12', null), 12)).toBe(emptyEntry);
    expect(leaveEntry(typeEntry('', null), 12)).toBe(emptyEntry);
    expect(focusEntry(emptyEntry, '12')).toEqual({ ...emptyEntry, text: '12' });
  });

  it('shows at once why a step is rejected, and a typed text on Enter', () => {
    expect(stepEntry(problem)).toMatchObject({ text: null, problem, isShown: true });
    expect(stepEntry(null)).toEqual(emptyEntry);
    // A rejected step leaves no text behind.
    expect(leaveEntry(stepEntry(problem), 0)).toBe(emptyEntry);
    expect(showProblem(typeEntry('0', problem)).isShown).toBe(true);
    expect(showProblem(typeEntry('1', null)).isShown).toBe(false);
  });
});
